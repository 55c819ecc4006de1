using System.Text.Json.Serialization;

namespace WarmConduit.Core.Rigs;

/// <summary>A view that a photo lies under.</summary>
public enum PhotoView
{
    /// <summary>From the kerb: along and up.</summary>
    Side,

    /// <summary>From above: along and across.</summary>
    Plan,
}

/// <summary>A place in a picture, as fractions of its width and height from its upper left.</summary>
/// <param name="X">0 to 1.</param>
/// <param name="Y">0 to 1.</param>
[method: JsonConstructor]
public readonly record struct PicturePoint(double X, double Y);

/// <summary>
/// A picture of a wall or floor, stored with the rig and drawn faintly under a view. Four corners of something upright of known size straighten and scale it.
/// </summary>
/// <param name="Id">Its id.</param>
/// <param name="Name">Its name, 1 to 80 characters.</param>
/// <param name="Picture">SHA-256 of the stored picture, 64 hexadecimal digits in lower case.</param>
/// <param name="View">The view it lies under.</param>
/// <param name="Corners">Upper left, upper right, lower right, lower left of the thing in the picture.</param>
/// <param name="WidthM">Width of that thing, m; above 0, to 30.</param>
/// <param name="HeightM">Its height, m; above 0, to 30.</param>
/// <param name="AlongM">Its left edge, from the rear, m.</param>
/// <param name="OtherM">Its lower edge: above the floor (from the side), or from the kerb (from above), m.</param>
public sealed record Photo(
    string Id, string Name, string Picture, PhotoView View, IReadOnlyList<PicturePoint> Corners, double WidthM, double HeightM, double AlongM, double OtherM)
    : IIdentified;
