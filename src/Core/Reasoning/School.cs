using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Reasoning;

/// <summary>One thing that a school looks at.</summary>
/// <param name="What">What it is.</param>
/// <param name="Wanted">What it should be, with its unit.</param>
/// <param name="Was">What it was; null where nothing tells.</param>
/// <param name="Met">Whether that does; null where nothing tells.</param>
public sealed record SchoolTarget(string What, string Wanted, string? Was, bool? Met);

/// <summary>
/// A way of judging shots that people hold to: what it aims at, which signs it does not judge by, which causes it suspects more
/// or less than the others do, and in which order it asks. A file of its own, found by itself. All of it is common practice: the
/// schools disagree, and none is right for everybody.
/// </summary>
public abstract class School
{
    /// <summary>Stable key.</summary>
    public abstract string Key { get; }

    /// <summary>What it is called.</summary>
    public abstract string Name { get; }

    /// <summary>What it holds, in a sentence or two.</summary>
    public abstract string Holds { get; }

    /// <summary>Where it stands among the schools: 0 for the one that nobody chose.</summary>
    public abstract int Place { get; }

    /// <summary>Signs that it does not judge by.</summary>
    public virtual IReadOnlySet<Sign> Overlooks => new HashSet<Sign>();

    /// <summary>The order in which it asks for causes.</summary>
    public virtual IReadOnlyList<WorkingOrder> Order { get; } = Enum.GetValues<WorkingOrder>();

    /// <summary>How many times more often than usual it expects a cause; 1 where it holds nothing of it.</summary>
    /// <param name="cause">Key of the cause.</param>
    /// <param name="shot">The shot.</param>
    public virtual double Suspects(string cause, ShotFacts shot) => 1;

    /// <summary>The time to the yield that it aims at with a plan, s from the lever's first move.</summary>
    /// <param name="plan">The plan, with its own aim.</param>
    /// <param name="yieldGrams">Cup, g.</param>
    public virtual TimeBand Aim(PullPlan plan, double yieldGrams) => plan.LandingSeconds;

    /// <summary>Which of the three ratios of a roast it draws: 0 short, 1 usual, 2 long.</summary>
    public virtual int Ratio => 1;

    /// <summary>What another grind should bring.</summary>
    public virtual string GrindExpects => "The cup in its time, under the same arm.";

    /// <summary>What it looks at in a shot, in the order that it cares.</summary>
    public abstract IReadOnlyList<SchoolTarget> Targets(ShotFacts shot);

    /// <summary>Signs of its own, told against what it wants and not against what is usual here.</summary>
    public virtual IEnumerable<SignReading> OwnSigns(ShotFacts shot) => [];

    /// <summary>A shot as this school sees it: aimed at its time.</summary>
    public ShotFacts See(ShotFacts shot) =>
        shot with
        {
            School = this,
            Sheet = shot.Sheet with { Plan = Aimed(shot.Sheet.Plan, shot.Sheet.YieldGrams) },
        };

    /// <summary>A plan with this school's time to aim at.</summary>
    public PullPlan Aimed(PullPlan plan, double yieldGrams) => plan with { Lands = Aim(plan, yieldGrams) };
}
