using RuddySpring.Core.Dialing;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Shots;

namespace RuddySpring.Server.Prepare;

/// <summary>What the brewer sets before a shot. Numbers may be out of range while they are being typed; the answer says
/// so.</summary>
public sealed record Sheet(
    int? BrewerId,
    int MachineId,
    int? BagId,
    int? GrinderId,
    double? GrindSetting,
    double DoseGrams,
    double YieldGrams,
    string PlanKey,
    int? BasketId = null,
    Preparation? Preparation = null,
    IReadOnlyList<ChangeOf>? Locked = null,
    int? SameAsShotId = null
);

/// <summary>A ratio to choose, with the yield it makes of the sheet's dose.</summary>
/// <param name="Fits">Whether the machine gives so much.</param>
public sealed record RatioView(string School, double Ratio, double YieldGrams, string Why, bool Fits);

/// <summary>What is no longer as it was in the shot that the sheet started from.</summary>
public sealed record SinceShot(int ShotId, IReadOnlyList<ChangedThing> Things, string? Warning);

/// <summary>A number of the sheet that does not do, and why.</summary>
public sealed record SheetProblem(string Field, string Sentence);

/// <summary>One thing to set or expect, computed from the sheet.</summary>
/// <param name="Version">Version of the sheet, to send with a change of it and with the pull that is made ready of it.</param>
/// <param name="Ratio">Yield over dose.</param>
/// <param name="WaterGrams">Water to pour, or to move with the piston.</param>
/// <param name="WaterMl">The same at the water's temperature.</param>
/// <param name="WaterC">Water at the puck as Warm estimates it.</param>
/// <param name="WaterPlusMinusC">Its uncertainty.</param>
/// <param name="MostWaterGrams">What chamber or strokes hold.</param>
/// <param name="LargestYieldGrams">Largest cup from this dose.</param>
/// <param name="Fits">Whether the water fits.</param>
/// <param name="FitSentence">Why, or what to change.</param>
/// <param name="PeakBar">Peak of the plan.</param>
/// <param name="HandForceKgf">Force at the handle at that peak; null on a spring or pump.</param>
/// <param name="ForceSentence">What that force means.</param>
/// <param name="WillingForceKgf">What the brewer said they would use.</param>
/// <param name="Puck">How the dose lies in the basket; null where basket and chamber are one, or the dose does not do.</param>
/// <param name="Strokes">Strokes, pumps or steps for the yield.</param>
/// <param name="Ratios">Ratios for this roast; empty without beans.</param>
/// <param name="HolderWord">Spout or bottomless, and why.</param>
/// <param name="PlanProblems">What the plan asks that the machine does not give.</param>
/// <param name="Since">What changed since the shot it started from; null where it started from none.</param>
public sealed record SheetAnswer(
    Sheet Sheet,
    int Version,
    double? Ratio,
    double? WaterGrams,
    double? WaterMl,
    double WaterC,
    double WaterPlusMinusC,
    WaterCourse WaterCourse,
    double MostWaterGrams,
    double? LargestYieldGrams,
    bool Fits,
    string FitSentence,
    double PeakBar,
    double? HandForceKgf,
    string ForceSentence,
    double WillingForceKgf,
    IReadOnlyList<SheetProblem> Problems,
    LastTime? LastTime,
    PuckFit? Puck,
    int? Strokes,
    IReadOnlyList<RatioView> Ratios,
    string HolderWord,
    IReadOnlyList<PlanProblem> PlanProblems,
    SinceShot? Since
);

/// <summary>The last shot of this bag on this machine.</summary>
public sealed record LastTime(
    int ShotId,
    DateTime PulledAt,
    double? GrindSetting,
    double DoseGrams,
    double? CupGrams,
    double? SecondsFromPressure,
    double? R10,
    int? Liking
);
