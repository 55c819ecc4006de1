using System.Collections;
using System.Collections.Concurrent;
using System.Reflection;
using System.Runtime.CompilerServices;
using System.Text.Json.Nodes;

namespace WarmConduit.Application.Answers;

/// <summary>About how many bytes of memory a record takes with all that it holds, for caches that let go in time. What two fields share is counted twice: too
/// much rather than too little.</summary>
public static class Footprint
{
    private const long Header = 24;

    private static readonly ConcurrentDictionary<Type, Func<object, long>> Known = new();

    /// <summary>Bytes of <paramref name="value"/>. O(what it holds).</summary>
    public static long Of(object? value) => value is null ? 0 : Known.GetOrAdd(value.GetType(), Build)(value);

    private static Func<object, long> Build(Type type)
    {
        if (type == typeof(string)) return v => Header + (2 * ((string)v).Length);
        if (typeof(JsonNode).IsAssignableFrom(type)) return v => 8 * ((JsonNode)v).ToJsonString().Length;
        if (typeof(IEnumerable).IsAssignableFrom(type))
        {
            // Figures lie side by side; things are pointed to.
            var item = type.IsArray ? type.GetElementType()! : type.GetInterfaces()
                .FirstOrDefault(i => i.IsGenericType && i.GetGenericTypeDefinition() == typeof(IEnumerable<>))?.GetGenericArguments()[0] ?? typeof(object);
            long each = item.IsValueType ? SizeOf(item) : 8;
            if (item.IsValueType && !Pointed(item)) return v => (2 * Header) + (each * Count((IEnumerable)v));
            return v =>
            {
                long bytes = 2 * Header;
                foreach (object? entry in (IEnumerable)v) bytes += each + Of(entry);
                return bytes;
            };
        }
        var fields = type.GetFields(BindingFlags.Instance | BindingFlags.Public | BindingFlags.NonPublic);
        long own = Header + fields.Sum(f => f.FieldType.IsValueType ? SizeOf(f.FieldType) : 8);
        var held = fields.Where(f => !f.FieldType.IsValueType || Pointed(f.FieldType)).ToArray();
        // A property is read many times faster than a field by name.
        var get = type.GetProperties(BindingFlags.Instance | BindingFlags.Public)
            .Where(p => p.GetIndexParameters().Length == 0 && held.Any(f => f.Name == $"<{p.Name}>k__BackingField")).Select(Getter).ToArray();
        if (get.Length < held.Length) return v => own + held.Sum(f => Of(f.GetValue(v)));
        return v =>
        {
            long bytes = own;
            foreach (var of in get) bytes += Of(of(v));
            return bytes;
        };
    }

    private static Func<object, object?> Getter(PropertyInfo property)
    {
        var on = System.Linq.Expressions.Expression.Parameter(typeof(object));
        var read = System.Linq.Expressions.Expression.Property(System.Linq.Expressions.Expression.Convert(on, property.DeclaringType!), property);
        return System.Linq.Expressions.Expression.Lambda<Func<object, object?>>(System.Linq.Expressions.Expression.Convert(read, typeof(object)), on).Compile();
    }

    private static bool Pointed(Type type) => (bool)typeof(RuntimeHelpers)
        .GetMethod(nameof(RuntimeHelpers.IsReferenceOrContainsReferences))!.MakeGenericMethod(type).Invoke(null, null)!;

    private static long SizeOf(Type type) => (int)typeof(Unsafe).GetMethod(nameof(Unsafe.SizeOf))!.MakeGenericMethod(type).Invoke(null, null)!;

    private static long Count(IEnumerable items) => items is ICollection known ? known.Count : items.Cast<object?>().LongCount();
}
