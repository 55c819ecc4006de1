using WarmConduit.Core.Geometry;
using WarmConduit.Core.Materials;

namespace WarmConduit.Core.Rigs.Edits;

/// <summary>Parts from stock, turned and mirrored. Lengths are kept to the micrometre, so that turning there and back is exact.</summary>
internal static class Turning
{
    /// <summary>A part as stock has it, turned by <paramref name="orientation"/>, with its corner at <paramref name="at"/>.</summary>
    public static Part FromStock(StockPart stock, string id, string name, Point3 at, Orientation? orientation)
    {
        var ports = stock.Ports.Select(p => new Port(p.Id, p.Offset, p.Facing, p.BoreM, p.Role)).InOrder();
        var part = new Part(id, name, stock.Id, new Box(at, stock.Size), ports);
        if (orientation is null || orientation == Orientation.AsStock) return part;
        if (orientation.Mirrored) part = Mirrored(part, Axis.X);
        if (orientation.UpsideDown) part = Mirrored(part, Axis.Z);
        for (int q = 0; q < orientation.QuarterTurns; q++) part = QuarterTurned(part);
        return part with { Box = part.Box with { At = at } };
    }

    /// <summary>Turned counter-clockwise by a quarter, about its upright middle.</summary>
    public static Part QuarterTurned(Part part)
    {
        var (at, size) = (part.Box.At, part.Box.Size);
        double half = (size.XM - size.YM) / 2;
        var orientation = part.Orientation ?? Orientation.AsStock;
        return part with
        {
            Box = new Box(Micro(new Point3(at.XM + half, at.YM - half, at.ZM)), new Point3(size.YM, size.XM, size.ZM)),
            Ports = [.. part.Ports.Select(p => p with { Offset = Micro(new Point3(size.YM - p.Offset.YM, p.Offset.XM, p.Offset.ZM)), Facing = p.Facing is { } f
            ? Turned(f) : null })],
            Orientation = Kept(orientation with { QuarterTurns = (orientation.QuarterTurns + 1) % 4 }),
        };
    }

    /// <summary>Mirrored in its own middle, along an axis of the vehicle.</summary>
    public static Part Mirrored(Part part, Axis axis)
    {
        var size = part.Box.Size;
        var was = part.Orientation ?? Orientation.AsStock;
        Point3 Across(Point3 o) => axis switch
        {
            Axis.X => o with { XM = size.XM - o.XM },
            Axis.Y => o with { YM = size.YM - o.YM },
            _ => o with { ZM = size.ZM - o.ZM },
        };
        var now = axis switch
        {
            Axis.X => was with { Mirrored = !was.Mirrored, QuarterTurns = (4 - was.QuarterTurns) % 4 },
            Axis.Y => was with { Mirrored = !was.Mirrored, QuarterTurns = (6 - was.QuarterTurns) % 4 },
            _ => was with { UpsideDown = !was.UpsideDown },
        };
        return part with
        {
            Ports = [.. part.Ports.Select(p => p with { Offset = Micro(Across(p.Offset)), Facing = p.Facing is { } f && AxisOf(f) == axis ? Opposite(f)
                : p.Facing })],
            Orientation = Kept(now),
        };
    }

    /// <summary>As large as <paramref name="size"/>, its ports in proportion.</summary>
    public static Part Resized(Part part, Point3 size)
    {
        var was = part.Box.Size;
        static double Along(double offset, double was, double now) => was > 0 ? offset * now / was : offset;
        return part with
        {
            Box = part.Box with { Size = Micro(size) },
            Ports = [.. part.Ports.Select(p => p with { Offset = Micro(new Point3(Along(p.Offset.XM, was.XM, size.XM), Along(p.Offset.YM, was.YM, size.YM),
            Along(p.Offset.ZM, was.ZM, size.ZM))) })],
            HoldsL = null,
        };
    }

    /// <summary>Turned so that what leads forward in stock leads along <paramref name="way"/>, as nearly as quarter turns allow.</summary>
    public static Orientation AlongWay(Point3 way) =>
        new(Math.Abs(way.XM) >= Math.Abs(way.YM) ? way.XM >= 0 ? 0 : 2 : way.YM >= 0 ? 1 : 3);

    /// <summary>To the micrometre; nothing is no minus nothing.</summary>
    public static Point3 Micro(Point3 p) => new(Math.Round(p.XM, 6) + 0.0, Math.Round(p.YM, 6) + 0.0, Math.Round(p.ZM, 6) + 0.0);

    private static Orientation? Kept(Orientation o) => o == Orientation.AsStock ? null : o;

    private static Facing Turned(Facing f) => f switch
    {
        Facing.Forward => Facing.FarSide,
        Facing.FarSide => Facing.Rear,
        Facing.Rear => Facing.KerbSide,
        Facing.KerbSide => Facing.Forward,
        _ => f,
    };

    private static Axis AxisOf(Facing f) => f switch
    {
        Facing.Forward or Facing.Rear => Axis.X,
        Facing.FarSide or Facing.KerbSide => Axis.Y,
        _ => Axis.Z,
    };

    private static Facing Opposite(Facing f) => f switch
    {
        Facing.Forward => Facing.Rear,
        Facing.Rear => Facing.Forward,
        Facing.FarSide => Facing.KerbSide,
        Facing.KerbSide => Facing.FarSide,
        Facing.Up => Facing.Down,
        _ => Facing.Up,
    };
}
