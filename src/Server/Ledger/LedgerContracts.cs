using RuddySpring.Core.Pulls;
using RuddySpring.Core.Reasoning;
using RuddySpring.Core.Shots;
using RuddySpring.Core.Traces;
using RuddySpring.Core.Trends;
using RuddySpring.Server.Tasting;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Ledger;

/// <summary>A shot as a line of the ledger.</summary>
/// <param name="SmallPressure">60 even points from start to end, in 1/20 bar, one byte each; empty without a gauge.</param>
/// <param name="SmallWeight">The same in 1/2 g.</param>
public sealed record ShotLine(
    int Id,
    int Version,
    DateTime PulledAt,
    ShotSource Source,
    string Brewer,
    string Machine,
    string Bag,
    string Roaster,
    string Grinder,
    string ScaleUnit,
    double? GrindSetting,
    double DoseGrams,
    double YieldGrams,
    double? WaterC,
    string Plan,
    Measures Measures,
    TasteView Taste,
    byte[] SmallPressure,
    byte[] SmallWeight
);

/// <summary>How many shots fit.</summary>
/// <param name="Total">As far as they are counted.</param>
/// <param name="IsMore">Whether there are more than were counted.</param>
public sealed record LedgerTotal(int Total, bool IsMore);

/// <summary>A page of the ledger, in its order.</summary>
/// <param name="Total">How many fit, as far as they are counted; null where it was not asked and the page does not show
/// it.</param>
/// <param name="IsMore">Whether there are more than were counted.</param>
/// <param name="HasOlder">Whether a page comes after this one.</param>
public sealed record LedgerPage(int? Total, bool IsMore, bool HasOlder, int Page, int Size, IReadOnlyList<ShotLine> Shots);

/// <summary>A cause that was named first for some shot.</summary>
public sealed record NamedCause(string Key, string Name);

/// <summary>What there is to filter by besides what stands on the bench.</summary>
/// <param name="Plans">Names of the plans that were pulled.</param>
public sealed record LedgerChoices(IReadOnlyList<string> Roasters, IReadOnlyList<string> Plans, IReadOnlyList<NamedCause> Causes);

/// <summary>What the ledger can be ordered by.</summary>
public enum LedgerOrder
{
    Date,
    Grind,
    Dose,
    Cup,
    Time,
    R10,
    Liking,
}

/// <summary>
/// A trace for drawing: even steps from the lever's first move, all of one length or null where no instrument told.
/// </summary>
public sealed record Curves(
    double StepSeconds,
    IReadOnlyList<double>? PressureBar,
    IReadOnlyList<double>? WeightGrams,
    IReadOnlyList<double>? FlowGramsPerS,
    IReadOnlyList<double>? PlanBar
);

/// <summary>How a channel of the trace came to be.</summary>
public sealed record ChannelOrigin(Channel Channel, Origin Origin, int Samples);

/// <summary>A shot whole.</summary>
/// <param name="Moments">s since the lever moved.</param>
/// <param name="Corrections">What was put right in its trace.</param>
/// <param name="Basket">Name of its basket; empty for the machine's own.</param>
/// <param name="Preparation">How the puck was prepared, in words; empty where nobody said.</param>
/// <param name="GroupC">Outside of the group at lever-up, degC; null where nobody knows.</param>
/// <param name="Seen">What was seen of stream and puck.</param>
/// <param name="After">What to do once the hand has let go; empty for a shot that was not pulled here.</param>
/// <param name="Arm">How far the arm was from the plan, phase by phase; null where nothing tells.</param>
/// <param name="Resistance">The puck's resistance against grams; empty where nothing tells.</param>
/// <param name="ChannelSign">What the trace says of a channel; null for nothing.</param>
/// <param name="Before">What there was to be done before the pull, to ask for afterwards.</param>
/// <param name="Extraction">What a measured strength comes to, in words; null where strength or cup are not known.</param>
public sealed record ShotView(
    ShotLine Shot,
    PullPlan Plan,
    Moments Moments,
    Moments Marked,
    Curves Curves,
    IReadOnlyList<ChannelOrigin> Origins,
    string Notices,
    IReadOnlyList<TraceCorrection> Corrections,
    string Basket,
    string Preparation,
    double? GroupC,
    string Seen,
    IReadOnlyList<PullCheck> After,
    PlanDistance? Arm,
    IReadOnlyList<ResistancePoint> Resistance,
    ChannelEvidence? ChannelSign,
    string? Extraction,
    IReadOnlyList<AskedBefore> Before
);

/// <summary>A number or a text; neither where a shot has none.</summary>
public sealed record ComparedValue(double? Number, string? Text);

/// <summary>One thing in which shots are compared.</summary>
/// <param name="Unit">Of its numbers; empty where they have none.</param>
/// <param name="Digits">Decimals that say something.</param>
/// <param name="Values">One a shot where they differ; a single one where they do not.</param>
/// <param name="Set">Mean and spread over the shots that have the number; null below three, and for words.</param>
public sealed record ComparedThing(
    string Label,
    string Unit,
    int Digits,
    IReadOnlyList<ComparedValue> Values,
    MeanAndSpread? Set = null
);

/// <summary>Shots side by side.</summary>
/// <param name="Differences">In what they differ.</param>
/// <param name="Same">What all have in common.</param>
/// <param name="BestOfBag">The best liked shot of the first one's beans that is not among them; null where there is none that was
/// liked.</param>
public sealed record Comparison(
    IReadOnlyList<ShotView> Shots,
    IReadOnlyList<ComparedThing> Differences,
    IReadOnlyList<ComparedThing> Same,
    int? BestOfBag
);
