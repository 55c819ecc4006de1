using WarmConduit.Core.Units;

namespace WarmConduit.Core.Rigs.Edits;

/// <summary>Removes a thing and what hangs on it.</summary>
internal static class Removing
{
    public static (Rig Rig, Sentence Words) Remove(Rig rig, string thing)
    {
        switch (thing.Split('/'))
        {
            case ["parts", var id]:
                var part = rig.Parts.Find(id) ?? throw Nothing(thing);
                return (Loosened(rig with { Parts = RigNodes.Without(rig.Parts, id) }, e => e.Part == id, id),
                    Words(part.Name, rig.Runs.Count(r => r.From.Part == id || r.To.Part == id)));
            case ["parts", var id, "ports", var port]:
                var holder = rig.Parts.Find(id) ?? throw Nothing(thing);
                if (holder.Ports.Find(port) is null) throw Nothing(thing);
                if (holder.Ports.Count == 1) throw new EditException("thing", $"it is the only port of {holder.Name}");
                bool Here(RunEnd e) => e.Part == id && e.Port == port;
                var without = RigNodes.Put(rig.Parts, holder with { Ports = RigNodes.Without(holder.Ports, port) });
                return (Loosened(rig with { Parts = without }, Here, null),
                    Words($"port {port} of {holder.Name}", rig.Runs.Count(r => Here(r.From) || Here(r.To))));
            case ["runs", var id]:
                var run = rig.Runs.Find(id) ?? throw Nothing(thing);
                return (NotDoneTo(Untaped(rig with { Runs = RigNodes.Without(rig.Runs, id) })), $"Removed {run.Name}");
            case ["runs", var id, "bends", var bend]:
                var bent = rig.Runs.Find(id) ?? throw Nothing(thing);
                if (bent.Bends.All(b => b.Id != bend)) throw Nothing(thing);
                return (rig with { Runs = RigNodes.Put(rig.Runs, bent with { Bends = RigNodes.Without(bent.Bends, bend) }) }, $"Removed a bend of {bent.Name}");
            case ["shell", "zones", var id]:
                var zone = rig.Shell.Zones.Find(id) ?? throw Nothing(thing);
                int faces = rig.Shell.Zones.Sum(z => z.Faces.Count(f => f.Towards == id) + z.Openings.Count(o => o.Towards == id));
                var zones = RigNodes.Without(rig.Shell.Zones, id).Select(z => z with
                {
                    Faces = [.. z.Faces.Where(f => f.Towards != id)],
                    Openings = [.. z.Openings.Where(o => o.Towards != id)],
                    Measured = z.Measured?.Exchange is { } exchange ? z.Measured with { Exchange = RigNodes.Without(exchange, id) } : z.Measured,
                });
                return (rig with { Shell = rig.Shell with { Zones = [.. zones] } }, faces == 0 ? $"Removed {zone.Name}"
                    : $"Removed {zone.Name}, and with it {faces} faces and openings towards it");
            case ["scenarios", var id]:
                var scenario = rig.Scenarios.Find(id) ?? throw Nothing(thing);
                if (!Scenarios.IsOwn(scenario.Kind)) throw new EditException("thing", $"'{scenario.Name}' is one of the standard scenarios");
                return (rig with { Scenarios = RigNodes.Without(rig.Scenarios, id) }, $"Removed {scenario.Name}");
            case ["left", _]:
                return (Restoring.RemoveFrom(rig, thing, out string undone), $"Not done: {undone}");
            default:
                return (Restoring.RemoveFrom(rig, thing, out string name), $"Removed {name}");
        }
    }

    /// <summary>Planned events that were about something go with it, or once it is no longer what they need: a door of a room that is gone opens no more, a
    /// button that is a timer now is not pressed.</summary>
    public static Rig Unplanned(Rig before, Rig after)
    {
        if (after.Plans is not { } plans || (ReferenceEquals(before.Parts, after.Parts) && ReferenceEquals(before.Runs, after.Runs)
            && ReferenceEquals(before.Shell, after.Shell))) return after;
        bool Gone(NightPlan plan, PlanEvent e) => !e.Fits(after) && e.Fits(before) && before.Plans?.Find(plan.Id)?.Events.Find(e.Id) == e;
        return !plans.Any(p => p.Events.Any(e => Gone(p, e))) ? after
            : after with { Plans = [.. plans.Select(p => p with { Events = [.. p.Events.Where(e => !Gone(p, e))] })] };
    }

    private static Rig Loosened(Rig rig, Func<RunEnd, bool> gone, string? partId)
    {
        Scenario Without(Scenario s) => partId is not null && s.Names(partId) ? s.Without(partId)
            : s.Gear is { } gear && gone(new RunEnd(gear.PartId, gear.Port)) ? s with { Gear = null } : s;
        bool Senses(Part p) => partId is not null && p.Pad?.Sensor?.PartId == partId;
        return NotDoneTo(Untaped(rig with
        {
            // A sensor that sat on it hangs in the air.
            Parts = rig.Parts.Any(Senses) ? [.. rig.Parts.Select(p => Senses(p) ? p with { Pad = p.Pad! with { Sensor = PadSensor.InRoom } } : p)] : rig.Parts,
            Runs = rig.Runs.Any(r => gone(r.From) || gone(r.To)) ? [.. rig.Runs.Where(r => !gone(r.From) && !gone(r.To))] : rig.Runs,
            Scenarios = rig.Scenarios.Select(Without).ToList() is var scenarios && scenarios.SequenceEqual(rig.Scenarios) ? rig.Scenarios : scenarios,
            ByHand = partId is null || rig.ByHand.Find(partId) is null ? rig.ByHand : RigNodes.Without(rig.ByHand, partId),
        }));
    }

    // A trace along a run that is gone lies along nothing.
    private static Rig Untaped(Rig rig) => rig.Runs.Any(r => r.Traces is not null)
        ? rig with { Runs = [.. rig.Runs.Select(r => r.WithoutTraces(id => rig.Runs.Find(id) is null))] } : rig;

    // What was done to a thing that is gone, and steps of one's own about it.
    private static Rig NotDoneTo(Rig rig)
    {
        if (rig.Left?.All(a => a.IsIn(rig)) == false) rig = rig with { Left = rig.Left.Where(a => a.IsIn(rig)).ToList() is { Count: > 0 } left ? left : null };
        return rig.OwnSteps?.All(s => s.IsIn(rig)) != false ? rig
            : rig with { OwnSteps = rig.OwnSteps.Where(s => s.IsIn(rig)).ToList() is { Count: > 0 } own ? own : null };
    }

    private static Sentence Words(string name, int runs) => runs switch
    {
        0 => $"Removed {name}",
        1 => $"Removed {name} and the run joined to it",
        _ => $"Removed {name} and {runs} runs joined to it",
    };

    private static EditException Nothing(string thing) => new("thing", $"there is nothing at '{thing}'");
}
