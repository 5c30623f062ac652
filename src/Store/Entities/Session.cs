using RuddySpring.Core;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Sessions;

namespace RuddySpring.Store.Entities;

/// <summary>What happened in a session, in seconds since its origin.</summary>
public sealed record SessionLog
{
    /// <summary>Steps that were done or skipped.</summary>
    public IReadOnlyList<DoneStep> Done { get; init; } = [];

    /// <summary>Steps that were begun, with the end they are expected to have.</summary>
    public IReadOnlyList<DoneStep> UnderWay { get; init; } = [];

    /// <summary>What was read.</summary>
    public IReadOnlyList<HeatReading> Readings { get; init; } = [];

    /// <summary>The log, if nothing in it is missing and every reading is one that can be.</summary>
    /// <exception cref="FieldRangeException">A reading is out of range.</exception>
    /// <exception cref="DoesNotFitException">Something in it is missing.</exception>
    public SessionLog Checked()
    {
        if (Done.Concat(UnderWay).Any(d => d?.Key is null) || Readings.Any(r => r is null))
            throw new DoesNotFitException("log", "A step or a reading in it is empty.");
        foreach (var reading in Readings)
            reading.Checked();
        return this;
    }
}

/// <summary>A session on one machine, from switch-on to last rinse.</summary>
public sealed class Session
{
    public int Id { get; set; }
    public int MachineId { get; set; }
    public BenchMachine Machine { get; set; } = null!;

    /// <summary>When it was planned, UTC.</summary>
    public DateTime CreatedAt { get; set; }

    /// <summary>Second 0 of its log, UTC: when its first step was begun; null before that.</summary>
    public DateTime? OriginAt { get; set; }

    /// <summary>When the last drink is wanted, UTC; null for as soon as can be.</summary>
    public DateTime? ReadyAt { get; set; }

    /// <summary>When it was over, UTC; null while it is open.</summary>
    public DateTime? EndedAt { get; set; }

    /// <summary>Room, degC, as it was then.</summary>
    public double AmbientC { get; set; }

    /// <summary>Height above the sea, m, as it was then.</summary>
    public double AltitudeMetres { get; set; }

    /// <summary>Counts the changes of what is wanted; ticks and readings have a log of their own and change nothing of
    /// it.</summary>
    public int WantsVersion { get; set; }

    /// <summary>What it is to give; stored as JSON.</summary>
    public SessionWants Wants { get; set; } =
        new()
        {
            Drinks = [new("", 0)],
            DoseGrams = 15,
            YieldGrams = 30,
        };

    /// <summary>What happened; stored as JSON.</summary>
    public SessionLog Log { get; set; } = new();
}
