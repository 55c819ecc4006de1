using System.Globalization;

namespace WarmConduit.Core.Rigs.Words;

/// <summary>Names that a rig's things have.</summary>
public static class Names
{
    /// <summary>The most UTF-16 units that a name has.</summary>
    public const int Longest = 80;

    /// <summary>A name for the other half of the line <paramref name="name"/>: "cold main 2", or the next number that no run has.</summary>
    public static string Next(Rig rig, string name)
    {
        var taken = rig.Runs.Select(r => r.Name).ToHashSet();
        string stem = name.TrimEnd('0', '1', '2', '3', '4', '5', '6', '7', '8', '9') is { Length: > 1 } cut && cut[^1] == ' ' ? cut.TrimEnd() : name;
        return Enumerable.Range(2, taken.Count + 2).Select(n => $"{Cut(stem, Longest - 5)} {n}").First(n => !taken.Contains(n));
    }

    /// <summary><paramref name="name"/>, no longer than <paramref name="most"/> UTF-16 units, cut between whole characters as a reader sees them.</summary>
    public static string Cut(string name, int most)
    {
        if (name.Length <= most) return name;
        int end = 0;
        foreach (int start in StringInfo.ParseCombiningCharacters(name))
        {
            if (start > most) break;
            end = start;
        }
        return name[..end].TrimEnd();
    }
}
