using System.Collections;
using System.Reflection;

namespace WarmConduit.Core.Tests.Engines;

/// <summary>Takes a sound question apart: one number, name, choice or list of it gone wrong at a time.</summary>
internal static class Spoil
{
    private static readonly double[] Numbers = [double.NaN, double.PositiveInfinity, double.NegativeInfinity, -1, 0, 1e-300, 2e-6, 1e11, 1e300];

    /// <summary>Copies of <paramref name="sound"/>, each with one thing wrong, and where.</summary>
    public static IEnumerable<(string Where, T Spoilt)> EveryWay<T>(T sound) => Ways(sound!).Select(w => (w.Where, (T)w.Value));

    /// <summary>Whether a number that can be read off <paramref name="answer"/> is no number.</summary>
    public static bool HasNaN(object? answer) => answer switch
    {
        double d => double.IsNaN(d),
        null or string => false,
        IEnumerable list => list.Cast<object?>().Any(HasNaN),
        _ when answer.GetType() is { IsPrimitive: false, IsEnum: false } type && type.Namespace!.StartsWith("WarmConduit", StringComparison.Ordinal) =>
            type.GetProperties().Where(p => p.GetIndexParameters().Length == 0 && !p.GetGetMethod()!.IsStatic).Any(p => HasNaN(p.GetValue(answer))),
        _ when answer.GetType().Name.StartsWith("ValueTuple", StringComparison.Ordinal) => answer.GetType().GetFields().Any(f => HasNaN(f.GetValue(answer))),
        _ => false,
    };

    private static IEnumerable<(string Where, object Value)> Ways(object value)
    {
        switch (value)
        {
            case double d:
                return Numbers.Where(n => !n.Equals(d)).Select(n => ($" = {n}", (object)n));
            case string:
                return [(" = nowhere", "nowhere"), (" = nothing", "")];
            case bool b:
                return [($" = {!b}", !b)];
            case Enum e:
                return [(" = unheard of", Enum.ToObject(e.GetType(), 77))];
            case IList list:
                return OfList(list);
            default:
                return OfRecord(value);
        }
    }

    private static IEnumerable<(string, object)> OfList(IList list)
    {
        var item = list.GetType().IsArray ? list.GetType().GetElementType()! : list.GetType().GetGenericArguments()[0];
        Array With(int length)
        {
            var copy = Array.CreateInstance(item, length);
            for (int i = 0; i < Math.Min(length, list.Count); i++) copy.SetValue(list[i], i);
            return copy;
        }
        if (list.Count == 0) yield break;
        yield return (" emptied", With(0));
        var twice = With(list.Count + 1);
        twice.SetValue(list[0], list.Count);
        yield return ("[0] twice", twice);
        for (int i = 0; i < list.Count; i++)
        {
            foreach (var (where, spoilt) in Ways(list[i]!))
            {
                var copy = With(list.Count);
                copy.SetValue(spoilt, i);
                yield return ($"[{i}]{where}", copy);
            }
        }
    }

    private static IEnumerable<(string, object)> OfRecord(object record)
    {
        var type = record.GetType();
        var clone = type.GetMethod("<Clone>$") ?? typeof(object).GetMethod("MemberwiseClone", BindingFlags.NonPublic | BindingFlags.Instance)!;
        foreach (var property in type.GetProperties().Where(p => p.SetMethod is not null))
        {
            if (property.GetValue(record) is not { } value) continue;
            foreach (var (where, spoilt) in Ways(value))
            {
                object copy = clone.Invoke(record, [])!;
                property.SetValue(copy, spoilt);
                yield return ($".{property.Name}{where}", copy);
            }
        }
    }
}
