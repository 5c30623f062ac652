using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;

namespace RuddySpring.Server.Plans;

/// <summary>A plan of the household's own, as it was kept.</summary>
public sealed record OwnPlanView(int Id, int Version, PullPlan Plan);

/// <summary>A plan as a file: what <see cref="PlanEndpoints"/> gives out and takes in.</summary>
/// <param name="Format">Always <c>ruddy-spring-plan</c>.</param>
/// <param name="Version">Version of the format, 1.</param>
public sealed record PlanFile(string Format, int Version, PullPlan Plan);

/// <summary>How a plan would run with the sheet as it stands.</summary>
/// <param name="Plan">The plan.</param>
/// <param name="Preview">Its course; null where the plan itself has a problem.</param>
/// <param name="DoseGrams">From the sheet.</param>
/// <param name="YieldGrams">From the sheet.</param>
/// <param name="MachineName">From the sheet.</param>
/// <param name="Lands">Times that count as landing.</param>
public sealed record PlanPreviewView(
    PullPlan Plan,
    PlanPreview Preview,
    double DoseGrams,
    double YieldGrams,
    string MachineName,
    TimeBand Lands
);
