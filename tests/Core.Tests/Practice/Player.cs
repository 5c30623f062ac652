using RuddySpring.Core.Coaching;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Practice;

namespace RuddySpring.Core.Tests.Practice;

/// <summary>Someone who plays a lesson: sees what the screen says 0.25 s late, with a hand more or less steady.</summary>
public static class Player
{
    /// <summary>Plays a lesson to its end.</summary>
    /// <param name="wobble">How unsteady the hand is, share of the effort.</param>
    /// <param name="listens">Whether the coach is followed, and drops and channels are seen.</param>
    public static PracticeRecord Play(
        Lesson lesson,
        ulong seed,
        double wobble = 0.01,
        bool listens = true,
        Machine? machine = null
    )
    {
        var random = new SeededRandom(seed ^ 0xABCD);
        var run = new PracticeRun(lesson, lesson.On(machine ?? FamilyDefaults.Of(MachineFamily.PortableLever).Machine), seed);
        var late = new Queue<LiveReading>();
        double shake = 0,
            effort = run.Machine.PressureBy == PressureBy.Spring ? 1 : 0;
        double? eased = null;
        for (var step = 0; step < 20000 && !run.IsOver; step++)
        {
            if (step % 5 == 0)
            {
                late.Enqueue(run.Tracker.Read(run.Seconds));
                if (late.Count > 5)
                {
                    var seen = late.Dequeue();
                    if (listens && seen.DropsSeen)
                        run.MarkDrops();
                    var advice = listens ? seen.Coach?.Advice : null;
                    if (advice is { Kind: AdviceKind.Stop } || seen.CupGrams > lesson.YieldGrams + (listens ? 0.5 : 3))
                        run.LetGo();
                    if (advice is { Kind: AdviceKind.Channel })
                        eased ??= run.Seconds;
                    var target = !run.Tracker.Started ? 2 : advice?.HoldBar ?? seen.TargetBar;
                    if (eased is { } at && run.Seconds < at + 3)
                        target = Math.Min(target, 3.5);
                    shake += (-shake * 0.05) + random.Normal(wobble * 0.3);
                    effort = Effort(run, seen, target, shake) + (run.Machine.PressureBy == PressureBy.Strokes ? 0 : shake);
                    if (run.Machine.PressureBy == PressureBy.Spring && effort > 0.85)
                        effort = 1; // down is down
                }
            }

            run.Step(effort);
        }

        return run.Record();
    }

    private static double Effort(PracticeRun run, LiveReading seen, double target, double shake)
    {
        switch (run.Machine.PressureBy)
        {
            case PressureBy.Arm:
                return target < 0.1
                    ? 0
                    : Lever.HandForceKgf(run.Machine, Math.Clamp(target, 0, 12), run.Lever.Travel)
                        / (run.Machine.WillingForceKgf * 1.3);
            case PressureBy.Spring:
                if (seen.Phase is "pre-infuse" or "refill" or "fill")
                    return 1;
                return Math.Clamp(
                    1 - (target / Math.Max(1, PressureLimit.MostBar(run.Machine, run.Lever.Travel * run.Machine.ChamberMl))),
                    0,
                    0.9
                );
            default:
                var beat = (run.Seconds + (4 * Math.Abs(shake))) % 0.8;
                return target < 0.3 || seen.PressureBar > target + 0.3 ? 0
                    : beat < 0.4 ? beat / 0.4
                    : Math.Max(0, 1 - ((beat - 0.4) / 0.3));
        }
    }
}
