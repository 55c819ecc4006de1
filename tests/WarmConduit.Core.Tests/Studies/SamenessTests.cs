using CsCheck;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.DrainDown;
using WarmConduit.Core.Tests.Rigs;

namespace WarmConduit.Core.Tests.Studies;

/// <summary>When two answers say the same.</summary>
public class SamenessTests
{
    private sealed record Leaf(double Value, string? Name);

    private sealed record Tree(int Id, IReadOnlyList<Leaf> Leaves, Tree? Child, Point3 At);

    private static readonly Gen<Leaf> Leaves = Gen.Select(Gen.OneOf(Gen.Double, Gen.Const(double.NaN)), Gen.Char.AlphaNumeric.Array[0, 3], (v, n) =>
        new Leaf(v, n.Length == 0 ? null : new string(n)));

    private static Gen<Tree?> Trees(int depth) => depth == 0
        ? Gen.Const((Tree?)null)
        : Gen.Select(Gen.Int[0, 2], Leaves.List[0, 3], Trees(depth - 1), Gen.Double[0, 1], (id, leaves, child, x) =>
            (Tree?)new Tree(id, leaves, child, new Point3(x, 0, 0)));

    private static Tree? Copy(Tree? tree) => tree is null ? null : new Tree(tree.Id, [.. tree.Leaves.Select(l => l with { })], Copy(tree.Child), tree.At);

    [Fact]
    public void Copies_are_the_same_however_deep_and_a_change_anywhere_is_seen() => Trees(3).Sample(tree =>
    {
        if (tree is null) return;
        Assert.True(Sameness.Same(tree, Copy(tree)!));
        // A record's own equality takes the lists of a copy for others.
        Assert.False(tree.Equals(Copy(tree)));
        Assert.False(Sameness.Same(tree, tree with { Id = 9 }));
        Assert.False(Sameness.Same(tree, tree with { Leaves = [.. tree.Leaves, new Leaf(1, "more")] }));
        if (tree.Child is { } child) Assert.False(Sameness.Same(tree, tree with { Child = child with { At = new Point3(2, 0, 0) } }));
        if (tree.Leaves.Count > 0) Assert.False(Sameness.Same(tree, tree with { Leaves = [tree.Leaves[0] with { Name = "~" }, .. tree.Leaves.Skip(1)] }));
    });

    [Fact]
    public void Nothing_is_the_same_as_nothing_alone()
    {
        Assert.True(Sameness.Same<Tree?>(null, null));
        Assert.False(Sameness.Same<Tree?>(null, new Tree(1, [], null, default)));
        Assert.True(Sameness.Same<IReadOnlyList<int>>([1, 2], [1, 2]));
        Assert.False(Sameness.Same<IReadOnlyList<int>>([1, 2], [2, 1]));
    }

    [Fact]
    public void The_same_question_asked_twice_has_the_same_answer()
    {
        DrainDownAnswer Asked() => new Question(RigFileTests.Sparrow, Conditions.Of(RigFileTests.Sparrow.Brief)).Ask(DrainDownStudy.Ask);
        var (one, other) = (Asked(), Asked());
        Assert.NotSame(one.Runs, other.Runs);
        Assert.True(Sameness.Same(one, other));
        Assert.False(Sameness.Same(one, other with { Runs = [.. other.Runs.Skip(1)] }));
    }
}
