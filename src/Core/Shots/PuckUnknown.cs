using RuddySpring.Core.Puck;

namespace RuddySpring.Core.Shots;

/// <summary>One number of a shot that nobody states and a trace may tell. Its logarithm is what is believed in.</summary>
/// <param name="Name">As people say it.</param>
/// <param name="Unit">Unit as printed; empty for a share.</param>
/// <param name="SdLog">Standard deviation of the logarithm before anything was pulled.</param>
/// <param name="Low">No lower.</param>
/// <param name="High">No higher.</param>
/// <param name="Source">Where middle and spread come from.</param>
/// <param name="MovesWater">Whether it changes what leaves the puck; otherwise only how that is seen.</param>
/// <param name="Get">Its value in a shot.</param>
/// <param name="With">The shot with another value of it.</param>
public sealed record PuckUnknown(
    string Name,
    string Unit,
    double SdLog,
    double Low,
    double High,
    string Source,
    bool MovesWater,
    Func<ShotConditions, double> Get,
    Func<ShotConditions, double, ShotConditions> With
)
{
    /// <summary>Resistance R_b of the bed.</summary>
    public static readonly PuckUnknown Resistance = new(
        "resistance",
        "bar s/ml",
        0.5,
        PuckParameters.Resistance.Min,
        PuckParameters.Resistance.Max,
        "any grind (common practice)",
        true,
        s => s.Bed.ResistanceBarSPerMl,
        (s, v) => s.WithResistance(v)
    );

    /// <summary>How the dry bed holds the front up.</summary>
    public static readonly PuckUnknown DryShare = Behaves(
        "resistance to wetting",
        "",
        0.45,
        0.02,
        3,
        "first drops after 4 to 10 s (common practice)",
        b => b.DryShare,
        (b, v) => b with { DryShare = v }
    );

    /// <summary>How fast the flow comes in.</summary>
    public static readonly PuckUnknown Onset = Behaves(
        "onset of the flow",
        "s",
        0.4,
        0.1,
        10,
        "drops turn into a stream within one to five seconds (common practice)",
        b => b.OnsetSeconds,
        (b, v) => b with { OnsetSeconds = v }
    );

    /// <summary>How much pressure closes the bed.</summary>
    public static readonly PuckUnknown Compaction = Behaves(
        "compaction",
        "1/bar",
        0.4,
        0.005,
        0.5,
        "flow grows less than pressure (common practice)",
        b => b.CompactionPerBar,
        (b, v) => b with { CompactionPerBar = v }
    );

    /// <summary>What erosion leaves.</summary>
    public static readonly PuckUnknown Eroded = Behaves(
        "resistance left by erosion",
        "",
        0.2,
        0.15,
        0.98,
        "the stream speeds up towards the end (common practice)",
        b => b.ErodedTo,
        (b, v) => b with { ErodedTo = v }
    );

    /// <summary>Delay at basket and spout.</summary>
    public static readonly PuckUnknown Spout = new(
        "delay at the spout",
        "s",
        CupPathBelief.Unknown.Spout.SdLog,
        0.02,
        5,
        "the stream goes on after the pressure is gone (common practice)",
        false,
        s => s.Path.SpoutDelaySeconds,
        (s, v) => s with { Path = s.Path with { SpoutDelaySeconds = v } }
    );

    /// <summary>Lag of the scale.</summary>
    public static readonly PuckUnknown Scale = new(
        "lag of the scale",
        "s",
        CupPathBelief.Unknown.Scale.SdLog,
        0.02,
        5,
        "kitchen scales lag by 0.2 to 0.8 s (common practice)",
        false,
        s => s.Path.ScaleLagSeconds,
        (s, v) => s with { Path = s.Path with { ScaleLagSeconds = v } }
    );

    /// <summary>All of them, in the order of every belief.</summary>
    public static readonly IReadOnlyList<PuckUnknown> All = [Resistance, DryShare, Onset, Compaction, Eroded, Spout, Scale];

    private static PuckUnknown Behaves(
        string name,
        string unit,
        double sdLog,
        double low,
        double high,
        string source,
        Func<PuckBehaviour, double> get,
        Func<PuckBehaviour, double, PuckBehaviour> with
    ) =>
        new(
            name,
            unit,
            sdLog,
            low,
            high,
            source,
            true,
            s => get(s.Behaviour),
            (s, v) => s with { Behaviour = with(s.Behaviour, v) }
        );
}
