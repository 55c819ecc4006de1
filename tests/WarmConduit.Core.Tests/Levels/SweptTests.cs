using CsCheck;
using WarmConduit.Core.Levels;
using WarmConduit.Core.Tests.Reference;

namespace WarmConduit.Core.Tests.Levels;

public class SweptTests
{
    [Fact]
    [Trait("Category", "Reference")]
    public void Swept_runs() => Cases.Each("swept", (c, expected, check) =>
    {
        SweepEdge[] edges = [.. c.Rows("edges").Select(e => new SweepEdge(e.Text("id"), e.Text("from"), e.Text("to"),
            Enum.Parse<Passes>(e.Text("passes"), true)))];
        var answer = Swept.Find(edges, c.Text("port"), c.Text("outlet"));
        check.Same("swept", string.Join(' ', expected.Rows("swept").Select(e => e.GetString()).Order()),
            string.Join(' ', answer.Edges.Select(e => edges[e].Id).Order()));
        check.Same("exact", true, answer.Exact);
    });

    private static readonly Gen<SweepEdge[]> Any =
        from n in Gen.Int[2, 8]
        from ends in Gen.Select(Gen.Int[0, n - 1], Gen.Int[0, n - 1], Gen.Int[0, 5]).Array[1, 14]
        select ends.Select((e, i) => new SweepEdge($"e{i}", $"n{e.Item1}", $"n{e.Item2}",
            e.Item3 switch { 0 => Passes.None, < 3 => Passes.Forward, _ => Passes.Both }))
            .Append(new SweepEdge("port", "n0", "n0", Passes.Both)).Append(new SweepEdge("outlet", "n1", "n1", Passes.Both)).ToArray();

    [Fact]
    public void The_decomposition_finds_what_listing_all_paths_finds() => Any.Sample(
        edges =>
        {
            var answer = Swept.Find(edges, "n0", "n1");
            Assert.True(answer.Exact);
            Assert.Equal(ByListing(edges), answer.Edges);
        },
        iter: 3000);

    [Fact]
    public void Beyond_its_bound_it_says_so_and_names_too_many_rather_than_too_few() => Any.Sample(edges =>
    {
        var exact = Swept.Find(edges, "n0", "n1");
        var cut = Swept.Find(edges, "n0", "n1", bound: 1);
        Assert.Superset(exact.Edges.ToHashSet(), cut.Edges.ToHashSet());
        if (cut.Exact) Assert.Equal(exact.Edges, cut.Edges);
    });

    private static int[] ByListing(SweepEdge[] edges)
    {
        var found = new SortedSet<int>();
        var path = new List<int>();
        var seen = new HashSet<string> { "n0" };
        void Walk(string at)
        {
            if (at == "n1")
            {
                found.UnionWith(path);
                return;
            }
            for (int e = 0; e < edges.Length; e++)
            {
                string? next = edges[e].Passes == Passes.None ? null
                    : edges[e].From == at ? edges[e].To
                    : edges[e].To == at && edges[e].Passes == Passes.Both ? edges[e].From : null;
                if (next is null || !seen.Add(next)) continue;
                path.Add(e);
                Walk(next);
                path.RemoveAt(path.Count - 1);
                seen.Remove(next);
            }
        }
        Walk("n0");
        return [.. found];
    }
}
