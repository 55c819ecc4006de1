using System.Collections.Concurrent;
using System.Linq.Expressions;
using System.Reflection;
using System.Text.Json.Nodes;

namespace WarmConduit.Core.Studies;

/// <summary>
/// Whether two values of records say the same, lists item by item (a record's own equality takes lists for the same only when they are one object). A comparer
/// for a type is built once, from its public properties. Values of a class that others may derive from are the same only when they are equal.
/// </summary>
public static class Sameness
{
    /// <summary>Whether they say the same.</summary>
    public static bool Same<T>(T a, T b) => Comparer<T>.Of(a, b);

    private static class Comparer<T>
    {
        public static readonly Func<T, T, bool> Of = Build();

        private static Func<T, T, bool> Build()
        {
            var type = typeof(T);
            if (type.IsGenericType && type.GetGenericTypeDefinition() == typeof(IReadOnlyList<>))
                return Method(nameof(SameLists), type.GetGenericArguments()[0]).CreateDelegate<Func<T, T, bool>>();
            if (typeof(JsonNode).IsAssignableFrom(type)) return (a, b) => JsonNode.DeepEquals(a as JsonNode, b as JsonNode);
            if (type.IsAbstract && type.IsClass)
                return (a, b) => ReferenceEquals(a, b) || (a is not null && b is not null && a.GetType() == b.GetType() && SameAs(a.GetType(), a, b));
            if (type.IsValueType || type == typeof(string) || !type.IsSealed) return EqualityComparer<T>.Default.Equals;

            var (a, b) = (Expression.Parameter(type), Expression.Parameter(type));
            var never = Expression.Constant(null, type);
            Expression all = Expression.AndAlso(Expression.ReferenceNotEqual(a, never), Expression.ReferenceNotEqual(b, never));
            foreach (var property in type.GetProperties(BindingFlags.Public | BindingFlags.Instance))
                all = Expression.AndAlso(all, Expression.Call(Method(nameof(Same), property.PropertyType), Expression.Property(a, property),
                    Expression.Property(b, property)));
            return Expression.Lambda<Func<T, T, bool>>(Expression.OrElse(Expression.ReferenceEqual(a, b), all), a, b).Compile();
        }
    }

    private static readonly ConcurrentDictionary<Type, MethodInfo> OfType = new();

    // Of what others derive from: as what it is.
    private static bool SameAs(Type type, object a, object b) => (bool)OfType.GetOrAdd(type, t => Method(nameof(Same), t)).Invoke(null, [a, b])!;

    private static MethodInfo Method(string name, Type type) => typeof(Sameness)
        .GetMethod(name, BindingFlags.Public | BindingFlags.NonPublic | BindingFlags.Static)!.MakeGenericMethod(type);

    private static bool SameLists<TItem>(IReadOnlyList<TItem>? a, IReadOnlyList<TItem>? b)
    {
        if (ReferenceEquals(a, b)) return true;
        if (a is null || b is null || a.Count != b.Count) return false;
        for (int i = 0; i < a.Count; i++)
            if (!Same(a[i], b[i])) return false;
        return true;
    }
}
