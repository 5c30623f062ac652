using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Reasoning.Schools;

/// <summary>The spring gives what it gives, high at first and falling, and nothing is steered (common practice).</summary>
public sealed class SpringNatural : School
{
    private const double Shorter = 0.75;
    private const double Longer = 1.35;

    public override string Key => "spring-natural";

    public override string Name => "Spring natural";

    public override string Holds =>
        "The pressure falls as a spring lets it, and nobody steers it. Dose, grind and heat decide, and a wide range of times "
        + "is good.";

    public override int Place => 3;

    public override IReadOnlySet<Sign> Overlooks { get; } = new HashSet<Sign> { Sign.Peak, Sign.End, Sign.Ramp };

    public override IReadOnlyList<WorkingOrder> Order { get; } =
    [
        WorkingOrder.Forgotten,
        WorkingOrder.Heat,
        WorkingOrder.Age,
        WorkingOrder.Grind,
        WorkingOrder.Preparation,
        WorkingOrder.Ratio,
        WorkingOrder.Pull,
        WorkingOrder.Wear,
    ];

    public override double Suspects(string cause, ShotFacts shot) =>
        cause switch
        {
            "pressed-to-the-end" or "arm-weak" => 0.1,
            "channel-ramp" => 0.4,
            "dose-off" => 1.5,
            "seal-leaking" => 1.5,
            _ => 1,
        };

    public override TimeBand Aim(PullPlan plan, double yieldGrams)
    {
        var own = plan.LandingSeconds;
        return new(Math.Round(own.Low * Shorter), own.Best, Math.Round(own.High * Longer));
    }

    public override IReadOnlyList<SchoolTarget> Targets(ShotFacts shot) => [TargetsOf.Cup(shot), TargetsOf.Time(shot)];
}
