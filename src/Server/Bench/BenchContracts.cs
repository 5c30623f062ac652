using RuddySpring.Core.Beans;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Server.Prepare;

namespace RuddySpring.Server.Bench;

/// <summary>Everything that stands on the bench or in the cupboard.</summary>
public sealed record BenchView(
    IReadOnlyList<BrewerView> Brewers,
    IReadOnlyList<MachineView> Machines,
    IReadOnlyList<GrinderView> Grinders,
    IReadOnlyList<BagView> Bags,
    IReadOnlyList<PullPlan> Plans,
    IReadOnlyList<FamilyView> Families,
    RestWindow Rest,
    IReadOnlyList<NamedRest> RestSchools,
    IReadOnlyList<BasketView> Baskets,
    IReadOnlyList<PutAwayView> PutAway,
    int HouseholdVersion,
    IReadOnlyList<PlanVersion> PlanVersions,
    IReadOnlyDictionary<string, IReadOnlyList<SketchPoint>> PlanSketches
);

/// <summary>The version of a plan of the household's own, to send with a change of it.</summary>
public sealed record PlanVersion(int Id, int Version);

/// <summary>What can be put away.</summary>
public enum BenchKind
{
    Machines,
    Grinders,
    Baskets,
    Bags,
}

/// <summary>Something that was put away and can be taken back.</summary>
public sealed record PutAwayView(BenchKind Kind, int Id, string Name);

public sealed record BasketView(int Id, int Version, string Name, Basket Spec);

public sealed record BasketChange(string Name, Basket Spec);

/// <summary>A person who brews; school and units are null for the household's.</summary>
public sealed record BrewerView(
    int Id,
    int Version,
    string Name,
    string? School,
    string? PressureUnit,
    string? TemperatureUnit,
    string? ForceUnit
);

/// <summary>A machine with the plans that suit it, and the sheet to start from on it: last time's.</summary>
/// <param name="Problem">What is wrong with its stored numbers; null where they are sound.</param>
public sealed record MachineView(
    int Id,
    int Version,
    string Name,
    Machine Spec,
    string? Problem,
    string PressureBy,
    IReadOnlyList<string> PlanKeys,
    Sheet Start
);

public sealed record GrinderView(
    int Id,
    int Version,
    string Name,
    string ScaleUnit,
    double Step,
    bool FinerIsLower,
    double? ZeroPoint,
    double RetentionGrams,
    double PurgeGrams
);

public sealed record BagView(
    int Id,
    int Version,
    string Name,
    string Roaster,
    DateOnly RoastedOn,
    string RoastLevel,
    bool Finished,
    string Process,
    DateOnly? OpenedOn,
    DateOnly? FrozenOn,
    DateOnly? ThawedOn,
    double? GramsLeft,
    int DaysFromRoast,
    RestState Rest,
    bool Frozen,
    string Meaning,
    int? BrewerId
);

/// <summary>A family to start a new machine from.</summary>
public sealed record FamilyView(MachineFamily Family, Machine Defaults, double DoseGrams, double YieldGrams);

/// <summary>A person who brews.</summary>
/// <param name="School">Key of the school that this person judges shots by; null for the household's.</param>
/// <param name="PressureUnit">bar, psi or kPa; null for the household's.</param>
/// <param name="TemperatureUnit">degC or degF; null for the household's.</param>
/// <param name="ForceUnit">kgf or N; null for the household's.</param>
public sealed record NewBrewer(
    string Name,
    string? School = null,
    string? PressureUnit = null,
    string? TemperatureUnit = null,
    string? ForceUnit = null
);

public sealed record MachineChange(string Name, Machine Spec);

public sealed record GrinderChange(
    string Name,
    string ScaleUnit,
    double Step,
    bool FinerIsLower,
    double? ZeroPoint = null,
    double RetentionGrams = 0,
    double PurgeGrams = 0
);

public sealed record BagChange(
    string Name,
    string Roaster,
    DateOnly RoastedOn,
    string RoastLevel,
    bool Finished,
    string Process = "",
    DateOnly? OpenedOn = null,
    DateOnly? FrozenOn = null,
    DateOnly? ThawedOn = null,
    double? GramsLeft = null,
    int? BrewerId = null
);
