using System.Text.Json;
using CsCheck;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;

namespace WarmConduit.Core.Tests.Rigs.Edits;

/// <summary>What holds for every edit on every rig.</summary>
public class EditPropertyTests
{
    private static readonly Rig Sparrow = RigFileTests.Sparrow;

    private static Edited? Try(Rig rig, params Edit[] edits)
    {
        try
        {
            return Editor.Apply(rig, edits);
        }
        catch (RigFileException e)
        {
            Assert.NotEmpty(e.Faults[0].Reason);
            return null;
        }
    }

    // A rig some random edits away from the demo's.
    private static readonly Gen<Rig> Edited = EditGen.On(Sparrow).Array[0, 8]
        .Select(edits => edits.Aggregate(Sparrow, (rig, edit) => Try(rig, edit)?.Rig ?? rig));

    [Fact]
    public void An_edit_and_its_inverse_give_the_same_document_and_the_inverse_of_that_does_it_again()
    {
        int done = 0;
        Edited.SelectMany(rig => EditGen.On(rig).Select(edit => (rig, edit))).Sample(
            sample =>
            {
                if (Try(sample.rig, sample.edit) is not { } there) return;
                Interlocked.Increment(ref done);
                // As they come back over the wire.
                var inverse = JsonSerializer.Deserialize<Edit[]>(JsonSerializer.Serialize(there.Inverse, RigFile.Compact), RigFile.Compact)!;
                var back = Editor.Apply(there.Rig, inverse);
                Assert.Equal(RigFile.Write(sample.rig), RigFile.Write(back.Rig));
                Assert.Equal(RigFile.Write(there.Rig), RigFile.Write(Editor.Apply(back.Rig, back.Inverse).Rig));
            },
            iter: 400, seed: "0000000000001");
        Assert.True(done > 300, $"only {done} could be done");
    }

    [Fact]
    public void Edits_that_touch_different_things_commute_and_are_carried_over_alike()
    {
        int apart = 0;
        Edited.SelectMany(rig => Gen.Select(EditGen.On(rig), EditGen.On(rig), (a, b) => (rig, a, b))).Sample(
            sample =>
            {
                var (rig, a, b) = sample;
                if (Try(rig, a) is not { } first || Try(rig, b) is not { } second || !Rebase.Apart(rig, [a], [b])) return;
                var ab = Try(first.Rig, b);
                var ba = Try(second.Rig, a);
                // Together they may break a rule of the whole; then in either order.
                Assert.Equal(ab is null, ba is null);
                if (ab is null) return;
                Interlocked.Increment(ref apart);
                Assert.Equal(RigFile.Write(ab.Rig), RigFile.Write(ba!.Rig));
                Assert.Equal(RigFile.Write(ab.Rig), RigFile.Write(Rebase.Over(rig, [b], first.Rig).Rig));
            },
            iter: 600, seed: "0000000000001");
        Assert.True(apart > 200, $"only {apart} were apart");
    }

    // A line taped to two others loses and gets back each, also where another takes its place.
    [Fact]
    public void What_a_heating_line_is_taped_to_is_undone_and_gone_back_from()
    {
        var shipped = DemoRigs.Of("lantern");
        Edited Taped(params string[] along) => Editor.Apply(shipped, [new ChangeThing("runs/c-trace-2", new System.Text.Json.Nodes.JsonObject
        {
            ["traces"] = RigDiff.Node(along.Select(id => new Trace(id, TraceKind.Plain))),
        })]);
        string[][] all = [["link-a"], ["link-a", "shower-hot"], ["shower-cold", "shower-hot"], ["shower-cold"]];
        foreach (string[] from in all)
        {
            var there = Taped(from);
            Assert.Equal(RigFile.Write(shipped), RigFile.Write(Editor.Apply(there.Rig, there.Inverse).Rig));
            foreach (string[] to in all)
            {
                var other = Taped(to).Rig;
                Assert.Equal(RigFile.Write(other), RigFile.Write(Editor.Apply(there.Rig, [new Restore("back", RigDiff.Between(there.Rig, other))]).Rig));
            }
        }
    }

    [Fact]
    public void No_sequence_of_accepted_edits_makes_a_document_that_is_refused_and_every_effect_is_what_happened() =>
        EditGen.On(Sparrow).Array[1, 25].Sample(
            edits =>
            {
                var rig = Sparrow;
                foreach (var edit in edits)
                {
                    if (Try(rig, edit) is not { } done) continue;
                    Assert.Empty(RigCheck.Check(done.Rig));
                    Assert.Equal(RigFile.Write(done.Rig.InOrder()), RigFile.Write(done.Rig));
                    Assert.Equal(JsonSerializer.Serialize(RigDiff.Between(rig, RigFile.Read(RigFile.WriteCompact(done.Rig)))),
                        JsonSerializer.Serialize(done.Effect));
                    Assert.NotEmpty(done.Words[0].Print(Core.Units.UnitSystem.UsCustomary));
                    rig = done.Rig;
                }
            },
            iter: 60, seed: "0000000000001");

    [Fact]
    public void Turned_four_times_or_mirrored_twice_a_part_is_as_it_was() =>
        Gen.Select(Gen.Int[0, Sparrow.Parts.Count - 1], Gen.Enum<Axis>()).Sample((i, axis) =>
        {
            string id = Sparrow.Parts[i].Id;
            Assert.Equal(RigFile.Write(Sparrow), RigFile.Write(Editor.Apply(Sparrow, [.. Enumerable.Repeat(new TurnPart(id, 1), 4)]).Rig));
            Assert.Equal(RigFile.Write(Sparrow), RigFile.Write(Editor.Apply(Sparrow, [new MirrorPart(id, axis), new MirrorPart(id, axis)]).Rig));
            // A mirror across is a mirror along and half a turn.
            Assert.Equal(RigFile.Write(Editor.Apply(Sparrow, [new MirrorPart(id, Axis.Y)]).Rig),
                RigFile.Write(Editor.Apply(Sparrow, [new MirrorPart(id, Axis.X), new TurnPart(id, 2)]).Rig));
        });

    [Fact]
    public void A_part_of_another_size_keeps_its_corner_and_its_ports_in_proportion()
    {
        var was = Sparrow.Parts.Find("tank")!;
        var larger = new Point3(1, 0.6, 0.3);
        var now = Editor.Apply(Sparrow, [new ResizePart("tank", larger)]).Rig.Parts.Find("tank")!;
        Assert.Equal((was.Box.At, larger), (now.Box.At, now.Box.Size));
        foreach (var (before, after) in was.Ports.Zip(now.Ports))
            Assert.Equal((Math.Round(before.Offset.XM * 2, 6), before.Offset.YM, Math.Round(before.Offset.ZM * 1.5, 6)),
            (after.Offset.XM, after.Offset.YM, after.Offset.ZM));
        Assert.Throws<RigFileException>(() => Editor.Apply(Sparrow, [new ResizePart("tank", larger with { YM = 0 })]));
    }
}
