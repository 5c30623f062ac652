using RuddySpring.Core.Machines;
using RuddySpring.Core.Practice;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Shots;
using RuddySpring.Server.Pull;

namespace RuddySpring.Server.Practice;

/// <summary>One time that a lesson was played.</summary>
public sealed record PlayedOnce(DateTime At, int Points);

/// <summary>A lesson with what has come of it so far.</summary>
/// <param name="Scored">What it is scored on.</param>
/// <param name="Played">Every time it was played, oldest first, at most the last fifty.</param>
public sealed record LessonView(
    string Key,
    string Name,
    string Teaches,
    string Why,
    IReadOnlyList<ScoreOf> Scored,
    MachineFamily? Family,
    IReadOnlyList<PlayedOnce> Played
);

/// <summary>All lessons in their order.</summary>
/// <param name="Next">The one to play next: the first that has not been played well.</param>
public sealed record PracticeOverview(IReadOnlyList<LessonView> Lessons, string Next);

/// <summary>Which lesson, with the feel of which machine; null for a portable lever.</summary>
public sealed record PracticeRequest(string Lesson, int? MachineId);

/// <summary>A lesson about to be played.</summary>
public sealed record PracticeView(
    string Id,
    LessonView Lesson,
    string MachineName,
    PracticeFrame Frame,
    PullPlan Plan,
    IReadOnlyList<PlanPoint> PlanCourse,
    double PlanSeconds,
    double YieldGrams,
    double? MaxHandForceKgf,
    PressureBy PressureBy,
    double StrokeMl,
    IReadOnlyList<StrokeReach> Reach,
    LeverControl Control,
    double? TickSeconds,
    IReadOnlyList<bool> Easing
);

/// <summary>The lever as it stands.</summary>
/// <param name="ForceKgf">Hand force; null where the hand makes no pressure.</param>
/// <param name="Travel">Share of its way, 0 to 1.</param>
/// <param name="Filling">Whether the group fills.</param>
public sealed record LeverState(double? ForceKgf, double Travel, bool Filling, int Strokes);

/// <summary>What is sent while a lesson is played.</summary>
/// <param name="Over">Whether it has ended and is to be scored.</param>
public sealed record PracticeFrame(LiveFrame Frame, LeverState Lever, bool Over);

/// <summary>What a lesson came to.</summary>
/// <param name="Best">Best before this time; null at the first.</param>
/// <param name="Before">The time before; null at the first.</param>
/// <param name="Next">The lesson after it; null after the last.</param>
/// <param name="GrindFactor">What the puck was: its resistance over that of a dialled-in one.</param>
/// <param name="TrueDropsSeconds">When first drops really fell.</param>
public sealed record PracticeResult(
    string Lesson,
    PracticeScore Score,
    int? Best,
    int? Before,
    string? Next,
    double GrindFactor,
    double? TrueDropsSeconds,
    double? ChannelSeconds
);
