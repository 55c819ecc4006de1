using System.Text.Json.Nodes;
using WarmConduit.Core.Geometry;
using WarmConduit.Core.Heat;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Rigs.Edits;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Scenarios;
using WarmConduit.Core.Studies.WaterFlow;

namespace WarmConduit.Core.Studies.HotWait;

/// <summary>A way to waste less.</summary>
public enum HotSavingKind
{
    /// <summary>The hot way insulated: what follows soon after still comes warm.</summary>
    Insulation,

    /// <summary>The hot way in 3/8 in.</summary>
    SmallerBore,

    /// <summary>A line of its own from the heater.</summary>
    HomeRun,
}

/// <summary>What a way to waste less would do at an outlet.</summary>
/// <param name="Kind">What is done.</param>
/// <param name="Litres">Water from cold then, L.</param>
/// <param name="S">The wait then, s.</param>
/// <param name="LPerMin">The flow then, L/min.</param>
/// <param name="SavesLADay">Less water wasted a day, L.</param>
/// <param name="Edits">The edits that do it; empty where a line has to be drawn.</param>
public sealed record HotSaving(HotSavingKind Kind, double Litres, double S, double LPerMin, double SavesLADay, IReadOnlyList<Edit> Edits);

/// <summary>The wait for hot water at an outlet, from cold. All are estimates.</summary>
/// <param name="PartId">The outlet.</param>
/// <param name="Name">Its name.</param>
/// <param name="Litres">Water that comes before it is hot, L: in the pipes, to warm their walls, and while the heater starts.</param>
/// <param name="S">How long that takes, s.</param>
/// <param name="LPerMin">The flow meanwhile, L/min.</param>
/// <param name="DrawsADay">Draws a day from cold.</param>
/// <param name="WastedLADay">Wasted a day, L.</param>
/// <param name="RunIds">The runs from the heater to it.</param>
/// <param name="Savings">What would waste less, the most first.</param>
public sealed record HotWaitAt(
    string PartId, string Name, double Litres, double S, double LPerMin, double DrawsADay, double WastedLADay, IReadOnlyList<string> RunIds,
    IReadOnlyList<HotSaving> Savings);

/// <summary>The wait for hot water. All are estimates.</summary>
/// <param name="Outlets">Outlets that hot water gets to, the most wasted first.</param>
/// <param name="WastedLADay">Wasted a day in all, L.</param>
/// <param name="ShareOfUse">That, as a share of the water used in a day.</param>
public sealed record HotWaitAnswer(IReadOnlyList<HotWaitAt> Outlets, double WastedLADay, double ShareOfUse);

/// <summary>Litres and seconds until hot water comes, from cold.</summary>
public static class HotWaitStudy
{
    private const double HotC = WaterFlowInput.UsualHotC, ColdC = WaterFlowInput.UsualColdC, WishC = WaterFlowInput.UsualWishC, StartS = 4;

    // Draws from cold, a person and day; the share of them that follows another within so long. Estimates.
    private const double TapDraws = 3, ShowerDraws = 0.7, OutdoorDraws = 0.3, SoonShare = 0.5, SoonS = 1200;
    private const double SleeveM = 0.013, RoomC = 15;
    private const string Small = "pex-3/8";

    /// <summary>Asks every outlet with a hot side. Pure. Two network solutions for each.</summary>
    public static HotWaitAnswer Ask(Question question)
    {
        var rig = question.Rig;
        var found = question.Tasks;
        var settings = found.SettingsOf(found.For(TaskKind.Tank, question.Cancel));
        var taps = rig.Parts.Where(p => Catalogue.Part(p.Stock)!.Passage == Passage.Mixer && p.PortAt("hot") is not null
            && question.Index.IsJoined(p.Id, "hot")).ToList();
        var made = new List<HotWaitAt>();
        foreach (var tap in taps)
        {
            question.Cancel.ThrowIfCancellationRequested();
            if (WaitAt(question, tap, settings) is not { } wait) continue;
            var (litres, s, flow, runs) = wait;
            double draws = rig.Brief.People * (tap.Stock is "shower-mixer" ? ShowerDraws : tap.Stock is "mixer" ? TapDraws : OutdoorDraws);
            made.Add(new HotWaitAt(tap.Id, tap.Name, litres, s, flow, draws, draws * litres, [.. runs.Select(r => r.Id)],
                [.. Savings(question, tap, settings, wait, draws).Where(x => x.SavesLADay > 0.01).OrderByDescending(x => x.SavesLADay)]));
        }
        double wasted = made.Sum(m => m.WastedLADay), used = rig.Brief.People * rig.Brief.LitresPerPersonDay;
        return new HotWaitAnswer([.. made.OrderByDescending(m => m.WastedLADay)], wasted, used > 0 ? wasted / used : 0);
    }

    /// <summary>Water in a pipe and what its wall takes as much warmth as, L a metre.</summary>
    internal static double LPerM(PipeStock pipe) =>
        1000 * (pipe.BoreM2() + (pipe.WallJPerMK() / (Water.DensityKgPerM3(WishC) * Water.HeatCapacityJPerKgK(WishC))));

    private static (double Litres, double S, double LPerMin, IReadOnlyList<Run> Runs)? WaitAt(Question question, Part tap, IReadOnlyList<Setting> settings)
    {
        var input = new WaterFlowInput(Open: [tap.Id], Positions: settings, WishC: HotC, HotC: HotC, ColdC: ColdC, Compare: false);
        var answer = WaterFlowStudy.Ask(question, input);
        var outlet = answer.Outlets.Single(o => o.PartId == tap.Id);
        // From the last heater on its way on.
        var way = outlet.Way.Select(question.Index.Run).ToList();
        int at = way.FindLastIndex(r => question.Index.Part(r.To.Part!) is var to && question.Index.Part(r.From.Part!) is var from
            && (PartWater.HeatsWater(to) || PartWater.HeatsWater(from)) && r.Service != Service.Hot);
        var hot = way.Skip(at + 1).Where(r => r.Service == Service.Hot).ToList();
        if (outlet.LPerMin < 0.1 || hot.Count == 0) return null;
        var parts = hot.SelectMany(r => (string[])[r.From.Part!, r.To.Part!]).Distinct().Select(question.Index.Part).ToList();
        var heater = parts.FirstOrDefault(PartWater.HeatsWater);
        double litres = hot.Sum(r => LPerM(Catalogue.Pipe(r.Pipe)!) * question.Index.PipeLengthM(r))
            + parts.Where(p => !PartWater.HeatsWater(p)).Sum(PartWater.HoldsL);
        // An instantaneous heater starts once water flows, and is cold then.
        if (heater is not null && Catalogue.Part(heater.Stock)!.Passage != Passage.Vessel)
            litres += PartWater.HoldsL(heater) + (heater.Flows().LightsLPerMin is null ? 0 : StartS / 60 * outlet.LPerMin);
        return (litres, SmallSums.HotWaitS(litres, outlet.LPerMin), outlet.LPerMin, hot);
    }

    private static IEnumerable<HotSaving> Savings(
        Question question, Part tap, IReadOnlyList<Setting> settings, (double Litres, double S, double LPerMin, IReadOnlyList<Run> Runs) now, double draws)
    {
        var bare = now.Runs.Where(r => r.Insulation is null).ToList();
        if (bare.Count > 0)
        {
            // Draws that follow soon find it warm where a sleeve keeps it so; without one it has cooled.
            double warm = now.Runs.Sum(r => Stays(Catalogue.Pipe(r.Pipe)!, SleeveM) && !Stays(Catalogue.Pipe(r.Pipe)!, r.Insulation?.ThicknessM ?? 0)
                ? LPerM(Catalogue.Pipe(r.Pipe)!) * question.Index.PipeLengthM(r) : 0);
            yield return new HotSaving(HotSavingKind.Insulation, now.Litres, now.S, now.LPerMin, draws * SoonShare * warm, [.. bare.Select(Sleeved)]);
        }
        var wide = now.Runs.Where(r => Catalogue.Pipe(r.Pipe)!.InnerDiameterM > Catalogue.Pipe(Small)!.InnerDiameterM).ToList();
        if (wide.Count > 0)
        {
            Edit[] edits = [.. wide.Select(r => new ChangeThing($"runs/{r.Id}", new JsonObject { ["pipe"] = Small }))];
            var rig = Editor.Apply(question.Rig, edits).Rig;
            if (WaitAt(question.On(rig, question.Cancel), rig.Parts.Find(tap.Id)!, settings) is { } then)
                yield return new HotSaving(HotSavingKind.SmallerBore, then.Litres, then.S, then.LPerMin, draws * (now.Litres - then.Litres), edits);
        }
        // Along the walls, in small pipe.
        var (from, to) = (question.Index.PlaceOf(now.Runs[0].From), tap.PortAt("hot")!.Value);
        double lengthM = Math.Abs(from.XM - to.XM) + Math.Abs(from.YM - to.YM) + Math.Abs(from.ZM - to.ZM), own = lengthM * LPerM(Catalogue.Pipe(Small)!);
        yield return new HotSaving(HotSavingKind.HomeRun, own, SmallSums.HotWaitS(own, now.LPerMin), now.LPerMin, draws * (now.Litres - own), []);
    }

    private static ChangeThing Sleeved(Run run) => new($"runs/{run.Id}",
        new JsonObject { ["insulation"] = new JsonObject { ["material"] = Catalogue.Usual(UsualFor.Sleeve).Id, ["thicknessM"] = SleeveM } });

    // Whether water from the heater is still warm enough after a while: a lump of water and wall that loses through its sleeve and the air film on it.
    private static bool Stays(PipeStock pipe, double sleeveM)
    {
        var section = new PipeSection(pipe.InnerDiameterM, pipe.OuterDiameterM, pipe.ConductivityWPerMK, sleeveM,
            Catalogue.Usual(UsualFor.Sleeve).ConductivityWPerMK);
        double lossWPerMK = PipeHeat.Steady(section, HotC, RoomC, 0).ConductanceWPerMK;
        double heat = (pipe.BoreM2() * Water.DensityKgPerM3(WishC) * Water.HeatCapacityJPerKgK(WishC)) + pipe.WallJPerMK();
        return RoomC + ((HotC - RoomC) * Math.Exp(-SoonS * lossWPerMK / heat)) >= WishC;
    }
}
