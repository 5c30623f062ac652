using RuddySpring.Core.Pulls;
using RuddySpring.Core.Traces;
using RuddySpring.Server.Tasting;
using RuddySpring.Store.Entities;

namespace RuddySpring.Server.Ledger;

/// <summary>A shot as a line of the ledger.</summary>
/// <param name="SmallPressure">60 even points from start to end, in 1/20 bar; empty without a gauge.</param>
/// <param name="SmallWeight">The same in 1/2 g.</param>
public sealed record ShotLine(
    int Id, int Version, DateTime PulledAt, ShotSource Source, string Brewer, string Machine, string Bag, string Roaster, string Grinder, string ScaleUnit,
    double? GrindSetting, double DoseGrams, double YieldGrams, double? WaterC, string Plan, Measures Measures, TasteView Taste,
    IReadOnlyList<int> SmallPressure, IReadOnlyList<int> SmallWeight);

/// <summary>A page of the ledger, newest first.</summary>
public sealed record LedgerPage(int Total, int Page, int Size, IReadOnlyList<ShotLine> Shots);

/// <summary>
/// A trace for drawing: even steps from the lever's first move, all of one length or null where no instrument told.
/// </summary>
public sealed record Curves(
    double StepSeconds, IReadOnlyList<double>? PressureBar, IReadOnlyList<double>? WeightGrams, IReadOnlyList<double>? FlowGramsPerS,
    IReadOnlyList<double>? PlanBar);

/// <summary>How a channel of the trace came to be.</summary>
public sealed record ChannelOrigin(Channel Channel, Origin Origin, int Samples);

/// <summary>A shot whole.</summary>
/// <param name="Basket">Name of its basket; empty for the machine's own.</param>
/// <param name="Preparation">How the puck was prepared, in words; empty where nobody said.</param>
/// <param name="After">What to do once the hand has let go; empty for a shot that was not pulled here.</param>
public sealed record ShotView(
    ShotLine Shot, PullPlan Plan, Moments Moments, Moments Marked, Curves Curves, IReadOnlyList<ChannelOrigin> Origins, string Notices,
    string Basket, string Preparation, IReadOnlyList<PullCheck> After);

/// <summary>One thing that differs between the compared shots; a value a shot, null where it has none.</summary>
public sealed record Difference(string Label, string Unit, IReadOnlyList<string?> Values);

/// <summary>Shots side by side.</summary>
/// <param name="Same">What all have in common, in words.</param>
public sealed record Comparison(IReadOnlyList<ShotView> Shots, IReadOnlyList<Difference> Differences, IReadOnlyList<string> Same);
