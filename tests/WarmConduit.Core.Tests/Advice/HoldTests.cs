using CsCheck;
using WarmConduit.Core.Advice.Cold;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies;
using WarmConduit.Core.Studies.Night;
using WarmConduit.Core.Tests.Rigs;
using WarmConduit.Core.Tests.Studies;

namespace WarmConduit.Core.Tests.Advice;

/// <summary>The cheapest set that holds all water, against every set of three.</summary>
public class HoldTests
{
    /// <summary>A tank and a line in a cold cupboard beside a warm room, another line in the room; how cold the cupboard's walls make it varies.</summary>
    private static Rig Small(double wallM2, double runM, bool second)
    {
        Box room = new(new(0, 0, 0), new(3, 2, 2)), cupboard = new(new(3, 0, 0), new(1.2, 2, 1));
        var rig = new RigBuilder().Zone("room", ZoneKind.Living, room, 15, new ZoneHeater(3000, 18)).Zone("cupboard", ZoneKind.Cupboard, cupboard, wallM2)
            .Tank("tank", new Box(new(3.1, 0.2, 0.1), new(0.5, 0.4, 0.3)), ("outlet", 3.1, 0.4, 0.15), ("vent", 3.2, 0.4, 0.4))
            .Part("tap", "cold-tap", ("cold", 3.15, 0.4 + runM, 0.15)).Run("line", "tank.outlet", "tap.cold");
        if (second) rig = rig.Part("filter", "filter", ("in", 3.9, 1, 0.4), ("out", 3.9, 1.1, 0.4));
        var built = rig.Build();
        // The rooms share a partition, through which a louvre can be cut.
        var side = new Face("side", "partition", FaceSide.Wall, 2, [new("plywood", 0.009)], 0, [], "room");
        return built with
        {
            Shell = built.Shell with { Zones = [.. built.Shell.Zones.Select(z => z.Id == "cupboard" ? z with { Faces = [.. z.Faces, side] } : z)] },
        };
    }

    private static Question Asked(Rig rig, double outdoorC) => new(rig, Conditions.Of(rig.Brief) with { OutdoorC = outdoorC, Hours = 12, HeatOn = true });

    /// <summary>The cheapest of all sets of up to three of the same measures; null: none of them holds.</summary>
    private static double? Best(Question question, HoldInput input)
    {
        var night = question.With(input.Night(question));
        var pool = new HoldPieces(night).For(night.Ask(RigNight.Of), input.HoldC).Where(p => p.Money is not null).ToList();
        double? best = null;
        void Look(int from, Rig rig, double cost, int left, List<string> places)
        {
            if (best is { } known && cost >= known) return;
            if (Held.Of(night.On(rig, default).Ask(RigNight.Of), input.HoldC).Deficit <= 0)
            {
                best = cost;
                return;
            }
            for (int p = from; left > 0 && p < pool.Count; p++)
                if (!places.Contains(pool[p].Place))
                    Look(p + 1, Editor.Apply(rig, pool[p].EditsOn(rig)).Rig, cost + pool[p].Money!.Value, left - 1, [.. places, pool[p].Place]);
        }
        Look(0, night.Rig, 0, 3, []);
        return best;
    }

    [Theory]
    [InlineData("dDUi640JypP2")]
    [InlineData("8RCBqjLY4FT5")]
    public void It_is_within_a_tenth_of_the_best_set_of_three_and_no_piece_can_be_spared(string seed)
    {
        int held = 0;
        (from wall in Gen.Double[1, 12]
         from run in Gen.Double[0.1, 1.2]
         from cold in Gen.Double[-25, -5]
         from second in Gen.Bool
         from prices in Gen.Double[1, 100].Array[5]
         select (wall, run, cold, second, prices))
            .Sample(c =>
            {
                string[] priced = [Price.Pad, Price.FrostHeater, Price.Louvre, Catalogue.Usual(UsualFor.Sleeve).Id, Catalogue.Usual(UsualFor.Board).Id];
                var rig = Small(c.wall, c.run, c.second) with
                {
                    Prices = [.. priced.Select((of, i) => new Price($"p{i}", of, c.prices[i], i == 4 ? PriceUnit.SquareMetre : null))],
                };
                Assert.Empty(RigCheck.Check(rig));
                var question = Asked(rig, c.cold);
                var input = new HoldInput(OutdoorC: c.cold, WindMPerS: 3, Hours: 12, By: HoldBy.Money);
                var answer = HoldFinder.Ask(question, input);
                var best = Best(question, input);
                if (best is null) return;
                Assert.True(answer.Holds, answer.Words.Text);
                Assert.InRange(answer.Cost, best.Value - 1e-9, (1.1 * best.Value) + 1e-9);
                if (best > 0) Assert.InRange(answer.Bound!.Value, 1e-9, best.Value + 1e-9);
                if (answer.Pieces.Count > 0) held++;
                // Done, all of it holds; and each piece says what falls without it.
                Rig done = answer.Edits.Count == 0 ? rig : Editor.Apply(rig, answer.Edits).Rig;
                var after = new Question(done, input.Night(question));
                Assert.Equal(0, Held.Of(after.Ask(RigNight.Of), input.HoldC).Deficit);
                // The coldest of it, and with what is guessed on its cold and its warm side.
                double[] sides = [.. ((Uncertainty[])[Uncertainty.None, Uncertainty.Pessimistic, Uncertainty.Optimistic])
                    .Select(s => Held.Of(RigNight.Of(after, s), input.HoldC).ColdestC)];
                Assert.Equal(sides, answer.Band.Values.Select(v => v.Value!.Value));
                Assert.True(sides[1] <= sides[0] + 1e-9 && sides[0] <= sides[2] + 1e-9);
                Assert.All(answer.Pieces, p => Assert.StartsWith("Without it", p.Why.Text, StringComparison.Ordinal));
            }, iter: 20, threads: 1, seed: seed);
        Assert.True(held > 1);
    }

    [Fact]
    public void What_cannot_be_held_is_told_and_energy_takes_no_more_heat_than_work_does()
    {
        // Nothing warms a line in the open.
        var rig = new RigBuilder().Tank("tank", new Box(new(0, 0, 0), new(0.4, 0.4, 0.3)), ("outlet", 0, 0.2, 0.05))
            .Part("tap", "cold-tap", ("cold", 9, 9, 0.05)).Run("line", "tank.outlet", "tap.cold").Build();
        var open = HoldFinder.Ask(Asked(rig, -20), new HoldInput(OutdoorC: -20, WindMPerS: 8));
        Assert.False(open.Holds);
        Assert.NotEmpty(open.Left);
        var small = Small(8, 0.5, true);
        HoldAnswer By(HoldBy by) => HoldFinder.Ask(Asked(small, -15), new HoldInput(OutdoorC: -15, WindMPerS: 3, Hours: 12, By: by));
        var (work, energy) = (By(HoldBy.Effort), By(HoldBy.Energy));
        Assert.True(work.Holds && energy.Holds);
        Assert.True(energy.HeatAfterWh <= work.HeatAfterWh + 1);
        Assert.Contains("No prices", By(HoldBy.Money).Words.Text, StringComparison.Ordinal);
        Assert.Equal("holdC", Assert.Single(new HoldInput(99).Check(small)).Path);
    }

    [Fact]
    public void All_that_is_not_held_is_named_and_the_rest_is_held_without_it()
    {
        var tern = DemoRigs.Of("tern");
        var question = Asked(tern, -10);
        var input = new HoldInput(OutdoorC: -10);
        var answer = HoldFinder.Ask(question, input);
        Assert.False(answer.Holds);
        var done = answer.Edits.Count == 0 ? tern : Editor.Apply(tern, answer.Edits).Rig;
        var held = Held.Of(new Question(done, input.Night(question)).Ask(RigNight.Of), input.HoldC);
        // What the list does not show by itself it counts and names.
        string told = string.Join("; ", answer.Left.Select(l => l.Text));
        Assert.Equal(Math.Min(held.Below.Count, 7), answer.Left.Count);
        Assert.All(held.Below.Values.OrderBy(b => b.C).Skip(6), b => Assert.Contains(b.Name, told, StringComparison.Ordinal));
    }

    [Fact]
    public void A_thing_that_its_whole_jacket_holds_is_not_given_up_for_the_sake_of_half_a_one()
    {
        // A tank alone in a cupboard that is hardly cold: of its jackets, the one all around holds it, that on one side does not.
        var rig = Small(20, 0.1, false);
        rig = rig with { Runs = [], Parts = [rig.Parts.Find("tank")!] };
        for (double cold = -2; cold > -50; cold -= 0.5)
        {
            var question = Asked(rig, cold);
            var input = new HoldInput(OutdoorC: cold, WindMPerS: 0, Hours: 12);
            var night = question.With(input.Night(question));
            var pool = new HoldPieces(night).For(night.Ask(RigNight.Of), input.HoldC).Where(p => p.Place == "jacket tank").ToList();
            if (pool.Count < 2) continue;
            double Coldest(HoldPiece piece) => Held.Of(night.On(Editor.Apply(rig, piece.EditsOn(rig)).Rig, default).Ask(RigNight.Of), -99).ColdestC;
            Assert.True(Coldest(pool[0]) >= Coldest(pool[^1]) - 1e-6);
            // What the better of them holds alone is held.
            if (Held.Of(night.On(Editor.Apply(rig, pool[0].EditsOn(rig)).Rig, default).Ask(RigNight.Of), input.HoldC).Deficit > 0) continue;
            Assert.True(HoldFinder.Ask(question, input).Holds);
            return;
        }
        Assert.Fail("no night tells its jackets apart");
    }

    [Fact]
    public void A_heating_line_in_a_cold_room_can_be_laid_through_it_in_a_loop()
    {
        Box room = new(new(0, 0, 0), new(3, 2, 2)), cupboard = new(new(3, 0, 0), new(1.2, 2, 1));
        var rig = new RigBuilder().Zone("room", ZoneKind.Living, room, 15, new ZoneHeater(3000, 18)).Zone("cupboard", ZoneKind.Cupboard, cupboard, 4)
            .Tank("tank", new Box(new(3.1, 0.2, 0.1), new(0.5, 0.4, 0.3)), ("outlet", 3.1, 0.4, 0.15), ("vent", 3.2, 0.4, 0.4))
            .Part("heater", "coolant-heater", ("in", 1, 0.2, 0.1), ("out", 1, 0.3, 0.1))
            .Part("pump", "circulator", ("in", 1.2, 0.3, 0.1), ("out", 1.3, 0.3, 0.1))
            .Part("there", "coupling", ("a", 3.2, 1.2, 0.1), ("b", 3.25, 1.2, 0.1)).Part("back", "coupling", ("a", 3.9, 1.6, 0.1), ("b", 3.85, 1.65, 0.1))
            .Run("a", Service.Coolant, "epdm-5/8", "heater.out", "pump.in").Run("b", Service.Coolant, "epdm-5/8", "pump.out", "there.a")
            .Run("c", Service.Coolant, "epdm-5/8", "there.b", "back.a").Run("d", Service.Coolant, "epdm-5/8", "back.b", "heater.in").Build();
        var cold = new Question(rig, Conditions.Of(rig.Brief) with { OutdoorC = -25, HeatOn = true, Water = WaterState.Wet, StartWaterC = 12 });
        var night = cold.Ask(RigNight.Of);
        // Of the line that lies in it, not of those that only lead there.
        var loops = new HoldPieces(cold).For(night, 12).Where(p => p.Place == "loop cupboard").ToList();
        Assert.Contains("more of c laid", Assert.Single(loops).Words.Text.Replace("{0} ", "", StringComparison.Ordinal), StringComparison.Ordinal);
        foreach (var loop in loops)
        {
            // Its room gets warmer by it, and no other price than that of hose is asked.
            var zone = rig.Shell.Zones.Find(loop.Place["loop ".Length..])!;
            var then = cold.On(Editor.Apply(rig, loop.EditsOn(rig)).Rig, CancellationToken.None).Ask(RigNight.Of);
            Assert.True(then.AirC(zone, then.Morning) > night.AirC(zone, night.Morning) + 0.05, loop.Place);
        }
    }

    [Fact]
    public void More_metres_are_more_work_and_a_line_beside_the_heating_can_be_taped()
    {
        // Without the trace, in the cold, the line that it lies along is too cold: to tape it again is among the measures.
        var lantern = DemoRigs.Of("lantern");
        lantern = lantern with { Runs = [.. lantern.Runs.Select(r => r.Id == "c-trace-2" ? r with { Traces = null } : r)] };
        var question = new Question(lantern, Conditions.Of(lantern.Brief) with { OutdoorC = -25 });
        var input = new HoldInput(HoldC: 15, OutdoorC: -25);
        var night = question.With(input.Night(question));
        var pool = new HoldPieces(night).For(night.Ask(RigNight.Of), input.HoldC);
        var sleeves = pool.Where(p => p.Place.StartsWith("sleeve", StringComparison.Ordinal)).ToList();
        Assert.True(sleeves.Count > 3);
        foreach (var (a, b) in sleeves.Zip(sleeves.Skip(1)))
        {
            double Metres(HoldPiece p) => question.Index.PipeLengthM(question.Index.Run(p.Thing!));
            Assert.Equal(Metres(a).CompareTo(Metres(b)), a.EffortH.CompareTo(b.EffortH));
        }
        Assert.Contains(pool, p => p.Place.StartsWith("tape c-trace", StringComparison.Ordinal));
        var tape = pool.First(p => p.Place.StartsWith("tape", StringComparison.Ordinal));
        var taped = Editor.Apply(lantern, tape.EditsOn(lantern)).Rig;
        Assert.Single(taped.Runs, r => r.Traces?.Find(tape.Thing!) is not null);
        // Taped to a second line as well, the first stays.
        string line = tape.Place.Split(' ')[1];
        if (pool.FirstOrDefault(p => p != tape && p.Place.StartsWith($"tape {line} ", StringComparison.Ordinal)) is { } other)
            Assert.Equal(2, Editor.Apply(taped, other.EditsOn(taped)).Rig.Runs.Find(line)!.Traces!.Count);
    }
}
