using System.Text.Json.Serialization;

namespace WarmConduit.Core.Geometry;

/// <summary>
/// How the vehicle is parked, degrees. Positive pitch raises +x (the cab), positive roll raises +y (the side away from the kerb).
/// </summary>
/// <param name="PitchDeg">Degrees; positive raises the cab.</param>
/// <param name="RollDeg">Degrees; positive raises the side away from the kerb.</param>
[method: JsonConstructor]
public readonly record struct Attitude(double PitchDeg, double RollDeg)
{
    /// <summary>Parked level.</summary>
    public static readonly Attitude Level = new(0, 0);

    /// <summary>Rise per metre of x.</summary>
    public double TanPitch() => Math.Tan(PitchDeg * Math.PI / 180);

    /// <summary>Rise per metre of y.</summary>
    public double TanRoll() => Math.Tan(RollDeg * Math.PI / 180);

    /// <summary>Height over the ground plane of the tilted vehicle: z' = z + x tan(pitch) + y tan(roll), metres.</summary>
    public double HeightM(Point3 p) => p.ZM + p.XM * TanPitch() + p.YM * TanRoll();
}
