using WarmConduit.Core.Levels;
using WarmConduit.Core.Materials;
using WarmConduit.Core.Rigs;
using WarmConduit.Core.Studies.Networks;
using WarmConduit.Core.Studies.Tanks;

namespace WarmConduit.Core.Studies.Scenarios;

/// <summary>
/// Where drinking water can get to in a rig, by how its valves, pumps and drains are set: places are ports, tanks and the air outside; what joins them is told
/// by <see cref="Inside"/>. Taps stay shut; a tank that is reached keeps what comes.
/// </summary>
internal sealed class WayGraph
{
    /// <summary>The place of everything that is open to air.</summary>
    public const int Air = 0;

    private readonly List<(int To, int Part)>[] _fixed;
    private readonly Dictionary<string, int> _place = [];
    private readonly Dictionary<string, int> _number;
    private readonly List<bool> _isTank = [true];
    private readonly List<(int From, int To, int Position)>[] _inside;
    private readonly List<(int To, int Position, int Part)>[] _from;
    private readonly Dictionary<int, (int To, int Part)> _back = [];

    /// <summary>Lays a rig out. O(parts + runs).</summary>
    public WayGraph(RigIndex index)
    {
        Index = index;
        Runs = [.. index.Rig.Runs.Where(r => RigFlow.IsWater(r) && !r.From.IsLoose() && !r.To.IsLoose())];
        var wet = Runs.SelectMany(r => (string[])[r.From.Part!, r.To.Part!]).ToHashSet();
        Parts = [.. index.Rig.Parts.Where(p => wet.Contains(p.Id))];
        _number = Parts.Select((p, i) => (p.Id, i)).ToDictionary(p => p.Id, p => p.i);
        foreach (var part in Parts)
        {
            if (TankStudy.IsTank(part))
            {
                _place[part.Id] = _isTank.Count;
                _isTank.Add(true);
            }
            foreach (var port in part.Ports)
            {
                _place[RigFlow.Node(part.Id, port.Id)] = _isTank.Count;
                _isTank.Add(false);
            }
        }
        _fixed = [.. Enumerable.Range(0, _isTank.Count).Select(_ => new List<(int, int)>())];
        _from = [.. Enumerable.Range(0, _isTank.Count).Select(_ => new List<(int, int, int)>())];
        _inside = [.. Parts.Select(_ => new List<(int, int, int)>())];
        Settable = [.. Enumerable.Range(0, Parts.Count).Where(i => PositionsOf(i).Count > 1)];
        foreach (var run in Runs) Join(At(run.From.Part!, run.From.Port!), At(run.To.Part!, run.To.Port!), -1);
        for (int i = 0; i < Parts.Count; i++) AddInside(i);
    }

    /// <summary>The same ways through a rig in which nothing is joined or set otherwise: with its own runs and parts. O(parts + runs).</summary>
    public WayGraph On(RigIndex index)
    {
        var other = (WayGraph)MemberwiseClone();
        other.Index = index;
        other.Runs = [.. Runs.Select(r => index.Run(r.Id))];
        other.Parts = [.. Parts.Select(p => index.Part(p.Id))];
        return other;
    }

    /// <summary>The rig by id.</summary>
    public RigIndex Index { get; private set; }

    /// <summary>Runs that carry drinking water.</summary>
    public IReadOnlyList<Run> Runs { get; private set; }

    /// <summary>Parts that it passes.</summary>
    public IReadOnlyList<Part> Parts { get; private set; }

    /// <summary>Numbers of the parts that are set for a task: valves, pumps, drains.</summary>
    public IReadOnlyList<int> Settable { get; }

    /// <summary>How many places there are.</summary>
    public int Count => _isTank.Count;

    /// <summary>The positions that a part can be left in for a task; a half-open valve is an open one here, and a tap stays shut.</summary>
    public IReadOnlyList<StockPosition> PositionsOf(int part)
    {
        var stock = Catalogue.Part(Parts[part].Stock)!;
        return stock.Passage is Passage.Mixer ? [] : [.. stock.Positions.Where(p => p.Id != Positions.HalfOpen)];
    }

    /// <summary>Number of a part; -1: no water line joins it.</summary>
    public int NumberOf(string partId) => _number.GetValueOrDefault(partId, -1);

    /// <summary>Number of a position of a part by its id; a half-open valve is an open one, and what is not known is the first.</summary>
    public int PositionOf(int part, string? id) =>
        Math.Max(0, PositionsOf(part).ToList().FindIndex(p => p.Id == (id == Positions.HalfOpen ? Positions.Open : id)));

    /// <summary>Where water comes from a part: out of a tank, in by a free inlet, else by any of its ports.</summary>
    public IEnumerable<int> SourcesOf(string partId) => PartOf(partId) is not { } part ? []
        : IsTank(part) ? [Tank(partId)] : RigFlow.IsTownInlet(part) ? [At(partId, "in")] : Joined(part);

    /// <summary>Where water has to come to be at a part: into a tank, to the inlets of a tap or heater, else to one of its ports.</summary>
    public IEnumerable<int> InletsOf(string partId) => PartOf(partId) is not { } part ? [] : IsTank(part) ? [Tank(partId)]
        : Catalogue.Part(part.Stock)!.Passage == Passage.Mixer ? Joined(part).Where(p => RoleAt(part, p) is PortRole.Cold or PortRole.Hot)
        : PartWater.HeatsWater(part) ? Joined(part).Where(p => RoleAt(part, p) == PortRole.Cold)
        : part.PortAt("in") is not null && Index.IsJoined(partId, "in") ? [At(partId, "in")] : Joined(part).Take(1);

    /// <summary>Every place of a part that a line is joined to.</summary>
    public IEnumerable<int> PlacesOf(string partId) => PartOf(partId) is not { } part ? [] : IsTank(part) ? [Tank(partId)] : Joined(part);

    /// <summary>Whether water runs out by a part.</summary>
    public bool LetsOut(string partId) => PartOf(partId) is { } part && Catalogue.Part(part.Stock)!.Passage is Passage.Drain or Passage.OpenEnd;

    private Part? PartOf(string partId) => NumberOf(partId) is >= 0 and int number ? Parts[number] : null;

    private IEnumerable<int> Joined(Part part) => part.Ports.Where(o => Index.IsJoined(part.Id, o.Id)).Select(o => At(part.Id, o.Id));

    private PortRole? RoleAt(Part part, int place) => part.Ports.Where(o => At(part.Id, o.Id) == place).Select(o => part.RoleOf(o)).FirstOrDefault();

    /// <summary>The part that a place belongs to; null for the air.</summary>
    public string? PartAt(int place) => place == Air ? null
        : Parts.FirstOrDefault(p => (IsTank(p) && Tank(p.Id) == place) || p.Ports.Any(o => At(p.Id, o.Id) == place))?.Id;

    /// <summary>Number of the connected piece that each place is in, whatever is open; the air is in none (-1).</summary>
    public int[] Pieces()
    {
        var piece = new int[Count];
        Array.Fill(piece, -1);
        var near = new List<int>[Count];
        for (int i = 0; i < Count; i++) near[i] = [];
        void Near(int a, int b)
        {
            if (a == Air || b == Air) return;
            near[a].Add(b);
            near[b].Add(a);
        }
        for (int i = 0; i < Count; i++)
            foreach (var (to, _) in _fixed[i]) Near(i, to);
        // All ports of a part are of one piece.
        foreach (var part in Parts)
            foreach (var port in part.Ports) Near(At(part.Id, part.Ports[0].Id), At(part.Id, port.Id));
        int count = 0;
        for (int root = 1; root < Count; root++)
        {
            if (piece[root] >= 0) continue;
            var queue = new Queue<int>([root]);
            piece[root] = count;
            while (queue.TryDequeue(out int at))
                foreach (int to in near[at].Where(to => piece[to] < 0))
                {
                    piece[to] = count;
                    queue.Enqueue(to);
                }
            count++;
        }
        return piece;
    }

    /// <summary>The place of a part's port.</summary>
    public int At(string part, string port) => _place[RigFlow.Node(part, port)];

    /// <summary>Whether water stands in it and is kept.</summary>
    public static bool IsTank(Part part) => TankStudy.IsTank(part);

    /// <summary>The place inside a tank.</summary>
    public int Tank(string part) => _place[part];

    /// <summary>
    /// Where water gets to from <paramref name="sources"/>, each with the place and the part (-1: a run) that it came by; null: not there.
    /// <paramref name="set"/> is the position of each part by number; it goes neither through the part <paramref name="without"/> nor to the places
    /// <paramref name="not"/>; where <paramref name="pumpsLetBack"/>, valves inside pumps are worn and let it back. O(places + ways).
    /// </summary>
    public (int From, int Part)?[] Reach(IEnumerable<int> sources, int[] set, int without = -1, int[]? not = null, bool pumpsLetBack = false)
    {
        var came = new (int, int)?[Count];
        foreach (int place in not ?? []) came[place] = (-1, -1);
        var queue = new Queue<int>();
        foreach (int s in sources)
        {
            came[s] ??= (-1, -1);
            queue.Enqueue(s);
        }
        int begun = queue.Count;
        while (queue.TryDequeue(out int at))
        {
            bool source = begun-- > 0;
            if (_isTank[at] && !source) continue;
            foreach (var (to, part) in _fixed[at]) Go(to, part);
            foreach (var (to, position, part) in _from[at])
                if (set[part] == position && part != without) Go(to, part);
            if (pumpsLetBack && _back.TryGetValue(at, out var behind)) Go(behind.To, behind.Part);

            void Go(int to, int part)
            {
                if (part == without && part >= 0) return;
                if (came[to] is not null) return;
                came[to] = (at, part);
                queue.Enqueue(to);
            }
        }
        foreach (int place in not ?? []) came[place] = null;
        return came;
    }

    /// <summary>Parts, in another position than they are <paramref name="set"/> to, that would let water on from where it got to.</summary>
    public IEnumerable<(int Part, int Position)> Frontier((int From, int Part)?[] came, int[] set)
    {
        foreach (int part in Settable)
            foreach (var (from, to, position) in _inside[part])
                if (set[part] != position && came[from] is not null && came[to] is null && !(_isTank[from] && came[from]!.Value.From >= 0))
                    yield return (part, position);
    }

    private void Join(int a, int b, int part)
    {
        _fixed[a].Add((b, part));
        _fixed[b].Add((a, part));
    }

    private void AddInside(int number)
    {
        var part = Parts[number];
        var stock = Catalogue.Part(part.Stock)!;
        if (stock.Passage == Passage.Vessel)
        {
            // A tank is a place of its own, which water does not leave by its fill and its vent; a heater joins all its ports.
            foreach (var port in part.Ports)
            {
                if (!TankStudy.IsTank(part)) Join(At(part.Id, part.Ports[0].Id), At(part.Id, port.Id), number);
                else if (part.RoleOf(port) is PortRole.Fill or PortRole.Vent) _fixed[At(part.Id, port.Id)].Add((Tank(part.Id), number));
                else Join(Tank(part.Id), At(part.Id, port.Id), number);
            }
            return;
        }
        if (stock.Passage == Passage.OpenEnd)
        {
            foreach (var port in part.Ports) _fixed[At(part.Id, port.Id)].Add((Air, number));
            return;
        }
        var positions = PositionsOf(number);
        if (stock.Passage == Passage.Pump && part.PortAt("in") is not null && part.PortAt("out") is not null)
            _back[At(part.Id, "out")] = (At(part.Id, "in"), number);
        for (int k = 0; k < Math.Max(1, positions.Count); k++)
        {
            if (stock.Passage == Passage.Drain)
            {
                if (positions[k].Passes) Way(At(part.Id, part.Ports[0].Id), Air, k);
                continue;
            }
            if (stock.Passage == Passage.Mixer) continue;
            foreach (var (from, to, passes) in Inside.Ways(part, positions.Count > 0 ? positions[k] : null))
            {
                if (passes is Passes.Both or Passes.Forward) Way(At(part.Id, from), At(part.Id, to), k);
                if (passes is Passes.Both) Way(At(part.Id, to), At(part.Id, from), k);
            }
        }

        void Way(int from, int to, int position)
        {
            if (positions.Count <= 1)
            {
                _fixed[from].Add((to, number));
                return;
            }
            _inside[number].Add((from, to, position));
            _from[from].Add((to, position, number));
        }
    }
}
