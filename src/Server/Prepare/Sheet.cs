namespace RuddySpring.Server.Prepare;

/// <summary>What the brewer sets before a shot. Numbers may be out of range while they are being typed; the answer says so.</summary>
public sealed record Sheet(
    int? BrewerId, int MachineId, int? BagId, int? GrinderId, double? GrindSetting, double DoseGrams, double YieldGrams, string PlanKey);

/// <summary>A number of the sheet that does not do, and why.</summary>
public sealed record SheetProblem(string Field, string Sentence);

/// <summary>One thing to set or expect, computed from the sheet.</summary>
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
public sealed record SheetAnswer(
    Sheet Sheet, double? Ratio, double? WaterGrams, double? WaterMl, double WaterC, double WaterPlusMinusC, double MostWaterGrams,
    double? LargestYieldGrams, bool Fits, string FitSentence, double PeakBar, double? HandForceKgf, string ForceSentence,
    double WillingForceKgf, IReadOnlyList<SheetProblem> Problems, IReadOnlyList<string> Cautions, LastTime? LastTime);

/// <summary>The last shot of this bag on this machine.</summary>
public sealed record LastTime(
    int ShotId, DateTime PulledAt, double? GrindSetting, double DoseGrams, double? CupGrams, double? SecondsFromPressure, double? R10,
    int? Liking);
