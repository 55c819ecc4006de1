using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;

namespace WarmConduit.Core.Tests.Advice;

/// <summary>
/// What a rig keeps when it stands level and is drained, worked out the plain way and with none of the engine's code: levels by rounds until nothing sinks any
/// more, water in a pipe by thin slices.
/// </summary>
internal static class PlainDraining
{
    /// <summary>Litres that stay in pipes, parts and tanks once what is done by hand is done.</summary>
    public static double RetainedL(Rig rig)
    {
        var scenario = rig.Scenarios.First(s => s.Kind == ScenarioKind.Drain);
        var height = new Dictionary<string, double>();
        var ways = new List<(string From, string To, bool Back)>();
        var open = new HashSet<string>();
        var lines = new List<(string From, string To, Point3 A, Point3 B, double Bore)>();

        foreach (var part in rig.Parts)
        {
            var stock = Catalogue.Part(part.Stock)!;
            foreach (var port in part.Ports) height[$"{part.Id}.{port.Id}"] = part.Box.At.ZM + port.Offset.ZM;
            string position = scenario.Settings.FirstOrDefault(s => s.Id == part.Id)?.Position
                ?? (stock.Passage switch { Passage.Valve => "half-open", Passage.Mixer or Passage.Drain => "open", Passage.Pump => "off", _ => "" });
            bool passes = stock.Passage is Passage.Through or Passage.OneWay or Passage.Vessel or Passage.OpenEnd
                || stock.Positions.FirstOrDefault(p => p.Id == position)?.Passes == true;
            if (stock.Passage == Passage.Vessel) height[$"{part.Id}!"] = double.NegativeInfinity;
            foreach (var port in part.Ports)
            {
                string here = $"{part.Id}.{port.Id}";
                if (stock.Passage == Passage.Vessel) ways.Add((here, $"{part.Id}!", true));
                if ((stock.Passage is Passage.Drain or Passage.OpenEnd && passes) || (stock.Passage == Passage.Mixer && passes && port.Id == "spout"))
                    open.Add(here);
                foreach (var other in part.Ports)
                    if (passes && port.Id != other.Id && (stock.Passage is Passage.Through or Passage.Valve or Passage.Mixer
                        || (stock.Passage is Passage.OneWay or Passage.Pump && port.Id == "in" && other.Id == "out")))
                        ways.Add((here, $"{part.Id}.{other.Id}", false));
            }
        }
        foreach (var run in rig.Runs)
        {
            string End(RunEnd end, string name) => end.At is null ? $"{end.Part}.{end.Port}" : $"{run.Id}~{name}";
            Point3 PlaceOf(RunEnd end)
            {
                if (end.At is { } loose) return loose;
                var part = rig.Parts.First(p => p.Id == end.Part);
                return part.Box.At + part.Ports.First(o => o.Id == end.Port).Offset;
            }
            List<(string Name, Point3 At)> points = [(End(run.From, "from"), PlaceOf(run.From)), .. run.Bends.Select(b => ($"{run.Id}~{b.Id}", b.At)),
                (End(run.To, "to"), PlaceOf(run.To))];
            foreach (var (name, at) in points) height[name] = at.ZM;
            double bore = Catalogue.Pipe(run.Pipe)!.InnerDiameterM;
            for (int i = 1; i < points.Count; i++)
            {
                ways.Add((points[i - 1].Name, points[i].Name, true));
                if (run.Service != Service.Coolant) lines.Add((points[i - 1].Name, points[i].Name, points[i - 1].At, points[i].At, bore));
            }
        }

        // Water stands at a place as high as the lowest way out lets it.
        var level = height.Keys.ToDictionary(k => k, k => open.Contains(k) ? height[k] : double.PositiveInfinity);
        for (bool sinks = true; sinks;)
        {
            sinks = false;
            foreach (var (a, b, back) in ways)
            {
                sinks |= Sink(a, b);
                if (back) sinks |= Sink(b, a);
            }
        }
        bool Sink(string at, string over)
        {
            double to = Math.Max(height[at], level[over]);
            if (to >= level[at]) return false;
            level[at] = to;
            return true;
        }

        double litres = lines.Sum(l => Pipe(l.A, l.B, l.Bore, Math.Min(level[l.From], level[l.To])));
        var coolant = rig.Runs.Where(r => r.Service == Service.Coolant).SelectMany(r => new[] { r.From.Part, r.To.Part })
            .Except(rig.Runs.Where(r => r.Service != Service.Coolant).SelectMany(r => new[] { r.From.Part, r.To.Part })).ToHashSet();
        foreach (var part in rig.Parts.Where(p => !coolant.Contains(p.Id) && (Catalogue.Part(p.Stock)!.Protects || rig.ByHand.All(h => h.Id != p.Id))))
        {
            var stock = Catalogue.Part(part.Stock)!;
            double holds = part.HoldsL ?? (stock.HoldsL > 0 || stock.Passage != Passage.Vessel ? stock.HoldsL
                : part.Box.Size.XM * part.Box.Size.YM * part.Box.Size.ZM * 1000);
            double share = stock.KeepsWater ? 1 : stock.Passage == Passage.Vessel
                ? (level[$"{part.Id}!"] - part.Box.At.ZM) / part.Box.Size.ZM
                : part.Ports.Max(p => level[$"{part.Id}.{p.Id}"] - height[$"{part.Id}.{p.Id}"]) / Inner(part, stock);
            litres += Math.Min(holds * Math.Clamp(share, 0, 1), holds * stock.UsualShare);
        }
        return litres;
    }

    private static double Inner(Part part, StockPart stock)
    {
        double bore = part.Ports.Max(p => p.BoreM ?? stock.Ports.FirstOrDefault(o => o.Id == p.Id)?.BoreM ?? 0.012);
        return stock.Look == PartLook.Joint || stock.Group == PartGroup.Valves ? bore : Math.Max(bore, part.Box.Size.ZM - part.Ports.Min(p => p.Offset.ZM));
    }

    // Slices across a sloping pipe, each a part of a circle as deep as the level stands above its invert.
    private static double Pipe(Point3 a, Point3 b, double bore, double level)
    {
        const int slices = 2000;
        double length = Math.Sqrt(Math.Pow(a.XM - b.XM, 2) + Math.Pow(a.YM - b.YM, 2) + Math.Pow(a.ZM - b.ZM, 2)), sum = 0, r = bore / 2;
        for (int i = 0; i < slices; i++)
        {
            double depth = Math.Clamp(level - (a.ZM + ((b.ZM - a.ZM) * (i + 0.5) / slices)), 0, bore);
            double half = Math.Acos(Math.Clamp((r - depth) / r, -1, 1));
            sum += r * r * (half - (Math.Sin(half) * Math.Cos(half)));
        }
        return sum / slices * length * 1000;
    }
}
