using System.Collections.Concurrent;
using System.Reflection;
using System.Text.Json;
using WarmConduit.Core.Studies;

namespace WarmConduit.Application.Answers;

/// <summary>Part of a list: items of the list that the asker has, or a new item.</summary>
/// <param name="From">Index of the first held item.</param>
/// <param name="Count">How many of them; 0 for a new item.</param>
/// <param name="Item">The new item.</param>
public sealed record Segment(int From, int Count, object? Item);

/// <summary>An answer as the differences from the one that the asker has.</summary>
/// <param name="Values">All fields that are not lists.</param>
/// <param name="Lists">Lists that differ, by field: what they are made of, in order.</param>
public sealed record AnswerChange(IReadOnlyDictionary<string, object?> Values, IReadOnlyDictionary<string, IReadOnlyList<Segment>> Lists)
{
    private static readonly ConcurrentDictionary<Type, IReadOnlyList<Field>> Known = new();

    /// <summary>What leads from <paramref name="held"/> to <paramref name="answer"/>, both answers of one study. O(items).</summary>
    public static AnswerChange Between(object held, object answer)
    {
        var values = new Dictionary<string, object?>();
        var lists = new Dictionary<string, IReadOnlyList<Segment>>();
        foreach (var field in Known.GetOrAdd(answer.GetType(), FieldsOf))
        {
            object? value = field.Property.GetValue(answer);
            if (field.Segments is null) values[field.Name] = value;
            else if (field.Segments(field.Property.GetValue(held)!, value!) is { } segments) lists[field.Name] = segments;
        }
        return new AnswerChange(values, lists);
    }

    private sealed record Field(string Name, PropertyInfo Property, Func<object, object, IReadOnlyList<Segment>?>? Segments);

    private static IReadOnlyList<Field> FieldsOf(Type type) => [.. type.GetProperties(BindingFlags.Public | BindingFlags.Instance).Select(p => new Field(
        JsonNamingPolicy.CamelCase.ConvertName(p.Name),
        p,
        p.PropertyType.IsGenericType && p.PropertyType.GetGenericTypeDefinition() == typeof(IReadOnlyList<>)
            ? typeof(AnswerChange).GetMethod(nameof(Segments), BindingFlags.NonPublic | BindingFlags.Static)!
                .MakeGenericMethod(p.PropertyType.GetGenericArguments()).CreateDelegate<Func<object, object, IReadOnlyList<Segment>?>>()
            : null))];

    // Null when the lists are the same. Items are found again by their first property where that is their id, and where they would follow on.
    private static List<Segment>? Segments<T>(object held, object list)
    {
        var (old, items) = ((IReadOnlyList<T>)held, (IReadOnlyList<T>)list);
        var key = typeof(T).IsValueType ? null : typeof(T).GetProperties()
            .FirstOrDefault(p => p.PropertyType == typeof(string))?.GetGetMethod()?.CreateDelegate<Func<T, string?>>();
        Dictionary<string, int>? places = null;
        var segments = new List<Segment>();
        int next = 0;
        foreach (var item in items)
        {
            int found = next < old.Count && Sameness.Same(old[next], item) ? next : -1;
            if (found < 0 && key?.Invoke(item) is { } id)
            {
                places ??= Places(old, key);
                if (places.TryGetValue(id, out int place) && Sameness.Same(old[place], item)) found = place;
            }
            if (found < 0)
            {
                segments.Add(new Segment(0, 0, item));
                next++;
                continue;
            }
            if (segments.Count > 0 && segments[^1] is { Count: > 0 } last && last.From + last.Count == found)
                segments[^1] = last with { Count = last.Count + 1 };
            else segments.Add(new Segment(found, 1, null));
            next = found + 1;
        }
        bool all = items.Count == old.Count && (segments.Count == 0 || (segments.Count == 1 && segments[0] is { From: 0 } only && only.Count == old.Count));
        return all ? null : segments;
    }

    private static Dictionary<string, int> Places<T>(IReadOnlyList<T> items, Func<T, string?> key)
    {
        var places = new Dictionary<string, int>(items.Count);
        for (int i = 0; i < items.Count; i++)
            if (key(items[i]) is { } id) places.TryAdd(id, i);
        return places;
    }
}
