namespace RuddySpring.Store.Entities;

/// <summary>A photo of a shot's cup or puck, drawn again without anything that the camera wrote into it.</summary>
public sealed class ShotPhoto
{
    public int Id { get; set; }

    public int ShotId { get; set; }

    public Shot? Shot { get; set; }

    /// <summary>When it was added, UTC.</summary>
    public DateTime AddedAt { get; set; }

    /// <summary>Width of <see cref="Jpeg"/>, pixels.</summary>
    public int Width { get; set; }

    /// <summary>Height of <see cref="Jpeg"/>, pixels.</summary>
    public int Height { get; set; }

    /// <summary>As it is shown, JPEG.</summary>
    public byte[] Jpeg { get; set; } = [];

    /// <summary>As it is shown small, JPEG.</summary>
    public byte[] Small { get; set; } = [];
}
