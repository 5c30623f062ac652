using RuddySpring.Core.Pulls;

namespace RuddySpring.Core.Reasoning.Schools;

/// <summary>Low pressure and patience (common practice: 50 to 60 s and more are good lever shots).</summary>
public sealed class LongAndGentle : School
{
    private const double MostBar = 7;
    private static readonly TimeBand s_long = new(45, 55, 70);

    public override string Key => "long-gentle";

    public override string Name => "Long and gentle";

    public override string Holds =>
        "A fine grind, a patient pre-infusion and no more than {6 bar!} or {7 bar}: 45 to 70 s, and a longer cup. "
        + "What is harsh was pressed too hard.";

    public override int Place => 2;

    public override int Ratio => 2;

    public override double Suspects(string cause, ShotFacts shot) =>
        cause switch
        {
            "pressed-to-the-end" => 3,
            "channel-ramp" => 2,
            "preinfusion-short" => 2.5,
            "ended-late" => 0.5,
            "arm-weak" => 0.3,
            _ => 1,
        };

    public override TimeBand Aim(PullPlan plan, double yieldGrams) =>
        plan.LandingSeconds.Best >= s_long.Best ? plan.LandingSeconds : s_long;

    public override IReadOnlyList<SchoolTarget> Targets(ShotFacts shot) =>
        [TargetsOf.Time(shot), TargetsOf.PeakAtMost(shot, MostBar), TargetsOf.Cup(shot)];
}
