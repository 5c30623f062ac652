using RuddySpring.Core.Reasoning;

namespace RuddySpring.Store.Entities;

/// <summary>A blind ladder: planned, tasted, uncovered.</summary>
public sealed class Ladder : IVersioned
{
    public int Id { get; set; }
    public int Version { get; set; }

    /// <summary>When it was planned, UTC.</summary>
    public DateTime CreatedAt { get; set; }

    /// <summary>What it is; stored as JSON.</summary>
    public BlindLadder Plan { get; set; } = new(LadderOf.Temperature, [85, 90, 95], [0, 1, 2]);

    /// <summary>Where the taster put each cup, 0 for the low end; null until it is uncovered. Stored as JSON.</summary>
    public IReadOnlyList<int>? Places { get; set; }

    /// <summary>How each cup was liked, 1 to 5; null where not said. Stored as JSON.</summary>
    public IReadOnlyList<int?>? Liked { get; set; }
}
