using RuddySpring.Core.Coaching;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;

namespace RuddySpring.Store.Entities;

/// <summary>Where a shot's trace came from.</summary>
public enum ShotSource
{
    /// <summary>Pulled here.</summary>
    Pulled,

    /// <summary>Read from a file.</summary>
    Imported,

    /// <summary>Simulated for the sample household.</summary>
    MadeUp,
}

/// <summary>One shot: what was set, what was measured, how it tasted. The trace itself lies in <see cref="ShotTrace"/>.</summary>
public sealed class Shot : IVersioned
{
    /// <summary>Its number in the ledger.</summary>
    public int Id { get; set; }
    public int Version { get; set; }

    /// <summary>Id of the pull that it was kept from, so that one pull is never two shots; null for a shot that was not pulled
    /// here.</summary>
    public string? PullId { get; set; }

    /// <summary>When it was pulled, UTC.</summary>
    public DateTime PulledAt { get; set; }

    public ShotSource Source { get; set; }

    public int? BrewerId { get; set; }
    public Brewer? Brewer { get; set; }
    public int MachineId { get; set; }
    public BenchMachine? Machine { get; set; }
    public int? BagId { get; set; }
    public Bag? Bag { get; set; }
    public int? GrinderId { get; set; }
    public Grinder? Grinder { get; set; }

    /// <summary>On the grinder's own scale.</summary>
    public double? GrindSetting { get; set; }

    public int? BasketId { get; set; }
    public BenchBasket? Basket { get; set; }

    /// <summary>How the puck was prepared; null where nobody said. Stored as JSON.</summary>
    public Preparation? Preparation { get; set; }

    public double DoseGrams { get; set; }

    /// <summary>Aimed at, g.</summary>
    public double YieldGrams { get; set; }

    /// <summary>Water at the puck in degC, measured or estimated; null if nobody knows.</summary>
    public double? WaterC { get; set; }

    /// <summary>Outside of the group when the lever moved, degC; null if nobody knows.</summary>
    public double? GroupC { get; set; }

    /// <summary>What was seen of stream and puck.</summary>
    public string Seen { get; set; } = "";

    /// <summary>SHA-256 of the file that it was imported from, in hexadecimal; null for a shot that was not.</summary>
    public string? FileHash { get; set; }

    /// <summary>Name of the plan as it was then; the plan itself lies in <see cref="ShotTrace"/>.</summary>
    public string PlanName { get; set; } = "";

    public Measures Measures { get; set; } = new(null, null, null, null, null, null, null, null, null, null, null, null, null);

    /// <summary>Seconds from first pressure, as the ledger is ordered by; the database takes it from
    /// <see cref="Measures"/>.</summary>
    public double? SecondsToOrderBy { get; private set; }

    /// <summary>Cup, g, likewise.</summary>
    public double? CupGramsToOrderBy { get; private set; }

    /// <summary>R10, bar s/ml, likewise.</summary>
    public double? R10ToOrderBy { get; private set; }

    /// <summary>Pressure at 60 even times from start to end, in 1/20 bar, one byte each: the ledger's small trace.</summary>
    public byte[] SmallPressure { get; set; } = [];

    /// <summary>Weight at the same times, in 1/2 g.</summary>
    public byte[] SmallWeight { get; set; } = [];

    public Taste Taste { get; set; } = new();

    /// <summary>What was tapped of stream and puck; null where nobody looked. Stored as JSON.</summary>
    public IReadOnlyList<Core.Reasoning.Seen>? Tapped { get; set; }

    /// <summary>What was said afterwards of what had been done before the pull; null where nobody said. Stored as
    /// JSON.</summary>
    public Core.Reasoning.TickedBefore? Before { get; set; }

    /// <summary>Strength of the cup by refractometer, 0 to 1; null without one.</summary>
    public double? Strength { get; set; }

    /// <summary>From 1 to 5; null where not said. Beside the taste, because the ledger filters by it.</summary>
    public int? Liking { get; set; }

    /// <summary>Key of the cause that was last named first for it; null where none was, or nobody asked.</summary>
    public string? Cause { get; set; }

    /// <summary>What happened that the reader of the trace should know, e.g. a scale that fell silent.</summary>
    public string Notices { get; set; } = "";

    /// <summary>Words for searching, see <see cref="ShotSearch"/>; set by the context with whatever they derive from.</summary>
    public string SearchText { get; set; } = "";

    /// <summary>When it was thrown into the bin, UTC; null while it is in the ledger.</summary>
    public DateTime? DeletedAt { get; set; }

    public ShotTrace Trace { get; set; } = null!;
}

/// <summary>
/// What only the view of one shot needs: plan, moments and the packed trace, in a table of its own so that the ledger's rows stay
/// small.
/// </summary>
public sealed class ShotTrace
{
    public int ShotId { get; set; }

    /// <summary>The plan as it was then.</summary>
    public PullPlan Plan { get; set; } = ShippedPlans.EarlyPeak;

    /// <summary>Moments that a person marked or moved.</summary>
    public Moments Marked { get; set; } = Moments.None;

    /// <summary>Moments found in the trace, with the marked ones in their place.</summary>
    public Moments Moments { get; set; } = Moments.None;

    /// <summary>What its clock begins with.</summary>
    public ClockStart Clock { get; set; }

    /// <summary>What the pull taught of puck, spout, scale and hand; null where nothing measured it. Stored as JSON.</summary>
    public LearnedPull? Learned { get; set; }

    /// <summary>See <see cref="TraceCodec"/>.</summary>
    public byte[] Packed { get; set; } = [];
}

/// <summary>How a shot tasted. Scales run from 0 (none) to 4 (very). Null where not said.</summary>
public sealed class Taste
{
    /// <summary>A mark from which on a taste has an index of its own, of 4: few shots have one so strong.</summary>
    public const int Strong = 3;

    public int? Sour { get; set; }
    public int? Bitter { get; set; }
    public int? Dry { get; set; }
    public int? Sweet { get; set; }
    public int? Body { get; set; }
    public string Words { get; set; } = "";
}
