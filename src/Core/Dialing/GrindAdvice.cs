using RuddySpring.Core.Fitting;

namespace RuddySpring.Core.Dialing;

/// <summary>A shot as the grind is learned from it: what was set, and the resistivity that came of it.</summary>
/// <param name="Bag">Which bag.</param>
/// <param name="Machine">Which machine.</param>
/// <param name="Setting">On the grinder's own scale.</param>
/// <param name="AgeDays">Days from roast.</param>
/// <param name="DoseGrams">Dose, g.</param>
/// <param name="Resistivity">Of the grind (<see cref="Shots.GrindResistivity"/>), bar s/ml, above 0.</param>
/// <param name="Basket">Which basket; 0 for the machine's own.</param>
/// <param name="MeanBar">Mean pressure while it was read, bar; null where nobody knows.</param>
/// <param name="WetSeconds">How long the puck had been under water by then, s; null where nobody knows.</param>
public sealed record GrindShot(
    int Bag,
    int Machine,
    double Setting,
    double AgeDays,
    double DoseGrams,
    double Resistivity,
    int Basket = 0,
    double? MeanBar = null,
    double? WetSeconds = null
);

/// <summary>A grinder's scale: its step, and which way is finer.</summary>
public sealed record GrinderSteps(double Step, bool FinerIsLower);

/// <summary>What to set next.</summary>
/// <param name="Setting">On the grinder's own scale, a whole number of its steps.</param>
/// <param name="Low">Lower end of the settings that may well be the right one (80 %).</param>
/// <param name="High">Upper end.</param>
/// <param name="Chance">Chance that this setting lands in the wanted band, 0 to 1.</param>
/// <param name="StepShare">How much one step moves the resistivity, as a share.</param>
/// <param name="TooCoarse">Whether one step moves it by more than the band is wide.</param>
/// <param name="InAWeek">What ageing alone will make the setting in seven days.</param>
/// <param name="Shots">Shots of this bag on this grinder that it rests on.</param>
/// <param name="HeldBack">Whether more was asked for than the shots so far can bear, so that this is only as far as they
/// reach.</param>
public sealed record GrindSuggestion(
    double Setting,
    double Low,
    double High,
    double Chance,
    double StepShare,
    bool TooCoarse,
    double InAWeek,
    int Shots,
    bool HeldBack = false
);

/// <summary>
/// How a grinder's setting goes with the resistivity it makes, learned from shots: ln rho = a + b (setting - s_0) + c (age - 8) +
/// g gas + d ln(dose / 15) + an offset for each bag, machine and basket. Which way is finer is known of the grinder, so the share
/// that a step is worth is positive: its prior is log-normal, a few hundredths to a quarter, and it is integrated on a grid, the
/// rest in closed form (Bayesian linear regression). What R10's correction for pressure and time leaves of the arm is learned
/// too, where pulls under different pressures tell it (+ h (pressure - mean) + w ln(wet / mean)). A shot far from what the others
/// say counts little (weights of a Student-t). A bag's grind gets looser by about a hundredth a day (common practice: a little
/// finer every week). It looks at the resistivity alone, so what the arm, the dose, the basket or the heat did is not blamed on
/// the grind.
/// </summary>
public sealed class GrindAdvice
{
    private const double MostStepsBeyond = 5;
    private const double LeastStepsBeyond = 3;
    private const double ReferenceAge = 8;
    private const double GassyDays = 5;
    private const double ReferenceDose = 15;
    private const double NoiseShare = 0.06;
    private const double NoiseWeight = 3;
    private const double UsualStepShare = 0.08;
    private const double StepShareSdLog = 0.6;
    private const double LeastStepShare = 0.02;
    private const double MostStepShare = 0.7;
    private const int Slopes = 25;
    private const double MostChance = 0.99;
    private const double TailDegrees = 4;
    private const int Weighings = 4;
    private static readonly Belief Intercept = new(Math.Log(9.0), 0.7);
    private static readonly Belief Ageing = new(-0.011, 0.006);
    private static readonly Belief Gas = new(0, 0.02); // a day short of five days of rest: gas holds the water up
    private static readonly Belief Dose = new(0, 0.25); // dose over area is taken out already; what is left of it
    private static readonly Belief BagOffset = new(0, 0.35);
    private static readonly Belief MachineOffset = new(0, 0.2);
    private static readonly Belief BasketOffset = new(0, 0.12);
    private const int AgeColumn = 1;
    private static readonly Belief PerBar = new(0, 0.03); // what a bar of the arm may still be worth
    private static readonly Belief PerLogWet = new(0, 0.08);
    private const int PressureColumn = 4;
    private const int FirstOffset = 6;

    private sealed record Slope(double PerUnit, double Weight, BayesianFit Fit);

    private readonly IReadOnlyList<Slope> _slopes;
    private readonly GrinderSteps _steps;
    private readonly double _centre;
    private readonly double _meanBar;
    private readonly double _meanLogWet;
    private readonly List<int> _bags;
    private readonly List<int> _machines;
    private readonly List<int> _baskets;
    private readonly IReadOnlyList<GrindShot> _shots;

    private GrindAdvice(GrinderSteps steps, IReadOnlyList<GrindShot> shots)
    {
        (_steps, _shots) = (steps, shots);
        _centre = shots.Count > 0 ? shots.Average(s => s.Setting) : 0;
        _bags = [.. shots.Select(s => s.Bag).Distinct()];
        _machines = [.. shots.Select(s => s.Machine).Distinct()];
        _baskets = [.. shots.Select(s => s.Basket).Where(b => b != 0).Distinct()];
        _meanBar = shots.Select(s => s.MeanBar).OfType<double>().DefaultIfEmpty(0).Average();
        _meanLogWet = shots.Select(s => s.WetSeconds).OfType<double>().Select(LogWet).DefaultIfEmpty(0).Average();
        var prior = new List<Belief> { Intercept, Ageing, Gas, Dose, PerBar, PerLogWet };
        prior.AddRange(_bags.Select(_ => BagOffset));
        prior.AddRange(_machines.Select(_ => MachineOffset));
        prior.AddRange(_baskets.Select(_ => BasketOffset));
        var rows = shots.Select(s => Row(s.Bag, s.Machine, s.Basket, s.AgeDays, s.DoseGrams, s.MeanBar, s.WetSeconds)).ToArray();
        var values = shots.Select(s => Math.Log(s.Resistivity)).ToArray();
        var weights = Enumerable.Repeat(1.0, shots.Count).ToArray();
        double[] WithoutTheSetting(double perUnit) => [.. values.Select((v, i) => v - (perUnit * (shots[i].Setting - _centre)))];

        var grid = Enumerable
            .Range(0, Slopes)
            .Select(i => LeastStepShare * Math.Pow(MostStepShare / LeastStepShare, i / (Slopes - 1.0)))
            .ToArray();
        double PerUnitOf(double share) => share / steps.Step * (steps.FinerIsLower ? -1 : 1);
        double LogPrior(double share) => -0.5 * Math.Pow(Math.Log(share / UsualStepShare) / StepShareSdLog, 2);
        List<Slope> slopes = [];
        for (var round = 0; round < Weighings; round++)
        {
            var design = new BayesianFit.Design(prior, NoiseShare, NoiseWeight, rows, weights);
            slopes =
            [
                .. grid.Select(share => PerUnitOf(share))
                    .Select((b, i) => (b, i, Fit: design.Fit(WithoutTheSetting(b))))
                    .Select(x => new Slope(x.b, LogPrior(grid[x.i]) + x.Fit.LogEvidence, x.Fit)),
            ];
            var most = slopes.Max(s => s.Weight);
            var sum = slopes.Sum(s => Math.Exp(s.Weight - most));
            slopes = [.. slopes.Select(s => s with { Weight = Math.Exp(s.Weight - most) / sum })];
            if (shots.Count < 3)
                break;
            // what each shot is off by counts against what shots are usually off by
            weights = new double[shots.Count];
            for (var i = 0; i < shots.Count; i++)
            {
                var off =
                    values[i] - slopes.Sum(s => s.Weight * ((s.PerUnit * (shots[i].Setting - _centre)) + s.Fit.Mean(rows[i])));
                weights[i] = (TailDegrees + 1) / (TailDegrees + (off * off / (NoiseShare * NoiseShare)));
            }
        }

        _slopes = slopes;
        PerUnit = slopes.Sum(s => s.Weight * s.PerUnit);
    }

    /// <summary>Change of ln rho a unit of the grinder's scale: the mean of what is believed.</summary>
    public double PerUnit { get; }

    /// <summary>Standard deviation of what is believed of <see cref="PerUnit"/>, over it.</summary>
    public double SlopeUncertainty =>
        Math.Sqrt(_slopes.Sum(s => s.Weight * Math.Pow(s.PerUnit - PerUnit, 2))) / Math.Abs(PerUnit);

    /// <summary>Change of ln rho a day.</summary>
    public double PerDay => _slopes.Sum(s => s.Weight * s.Fit.Coefficients[AgeColumn]);

    /// <summary>
    /// What the arm of a pull still has in its resistivity, as a factor: 1 under the mean pressure and the mean time of the shots
    /// that it was learned from, and where no pulls under different pressures told it.
    /// </summary>
    public double ArmFactor(double meanBar, double wetSeconds) =>
        Math.Exp(
            _slopes.Sum(s =>
                s.Weight
                * (
                    (s.Fit.Coefficients[PressureColumn] * (meanBar - _meanBar))
                    + (s.Fit.Coefficients[PressureColumn + 1] * (LogWet(wetSeconds) - _meanLogWet))
                )
            )
        );

    /// <summary>Learns from all shots of one grinder.</summary>
    /// <param name="steps">Its scale.</param>
    /// <param name="shots">Shots with a resistivity, of any bag and machine; at least one, or a setting to start from is
    /// needed.</param>
    public static GrindAdvice Learn(GrinderSteps steps, IReadOnlyList<GrindShot> shots) => new(steps, shots);

    /// <summary>What ln rho a setting gives: mean and spread of the whole mixture over the slopes, as one Student-t.</summary>
    public Prediction Predict(int bag, int machine, double setting, double ageDays, double doseGrams, int basket = 0)
    {
        var row = Row(bag, machine, basket, ageDays, doseGrams);
        double mean = 0,
            square = 0,
            degrees = double.MaxValue;
        foreach (var slope in _slopes)
        {
            var at = slope.Fit.Predict(row);
            var middle = at.Mean + (slope.PerUnit * (setting - _centre));
            mean += slope.Weight * middle;
            square += slope.Weight * ((middle * middle) + (at.Scale * at.Scale));
            degrees = Math.Min(degrees, at.DegreesOfFreedom);
        }

        // a bag, machine or basket never seen adds its own spread
        var extra =
            (_bags.Contains(bag) ? 0 : Math.Pow(BagOffset.Deviation, 2))
            + (_machines.Contains(machine) ? 0 : Math.Pow(MachineOffset.Deviation, 2))
            + (basket == 0 || _baskets.Contains(basket) ? 0 : Math.Pow(BasketOffset.Deviation, 2));
        return new(mean, Math.Sqrt(Math.Max(1e-12, square - (mean * mean)) + extra), degrees);
    }

    /// <summary>The setting most likely to land the resistivity between two bounds; null where there is no shot to start
    /// from.</summary>
    public GrindSuggestion? Suggest(
        int bag,
        int machine,
        double ageDays,
        double doseGrams,
        WantedResistance wanted,
        int basket = 0
    )
    {
        if (_shots.Count == 0)
            return null;
        var target = Math.Log(wanted.Best);
        var asked = Best(target, bag, machine, ageDays, doseGrams, basket);
        var ideal = Math.Clamp(asked, LowestBelieved, HighestBelieved);
        var best = Enumerable
            .Range(-1, 3)
            .Select(i => (Math.Round(ideal / _steps.Step) + i) * _steps.Step)
            .Where(s => s >= LowestBelieved - 1e-9 && s <= HighestBelieved + 1e-9)
            .DefaultIfEmpty(Math.Round(ideal / _steps.Step) * _steps.Step)
            .Select(s => (Setting: s, Chance: Chance(bag, machine, s, ageDays, doseGrams, wanted, basket)))
            .OrderByDescending(c => c.Chance)
            .ThenBy(c => Math.Abs(c.Setting - ideal))
            .First();
        var predicted = Predict(bag, machine, ideal, ageDays, doseGrams, basket);
        var spread = Math.Abs((predicted.Quantile(0.9) - predicted.Mean) / PerUnit);
        var step = Math.Abs(PerUnit) * _steps.Step;
        return new(
            best.Setting,
            ideal - spread,
            ideal + spread,
            best.Chance,
            Math.Exp(step) - 1.0,
            step > Math.Log(wanted.High / wanted.Low),
            Math.Clamp(Best(target, bag, machine, ageDays + 7, doseGrams, basket), LowestBelieved, HighestBelieved),
            _shots.Count(s => s.Bag == bag),
            Math.Abs(asked - ideal) > _steps.Step / 2
        );
    }

    /// <summary>Chance that a setting lands the resistivity between two bounds, 0 to 0.99: of no puck is anything surer (common
    /// practice).</summary>
    public double Chance(
        int bag,
        int machine,
        double setting,
        double ageDays,
        double doseGrams,
        WantedResistance wanted,
        int basket = 0
    ) =>
        Math.Min(
            MostChance,
            Predict(bag, machine, setting, ageDays, doseGrams, basket).Chance(Math.Log(wanted.Low), Math.Log(wanted.High))
        );

    private double Best(double target, int bag, int machine, double ageDays, double doseGrams, int basket) =>
        _centre + ((target - Predict(bag, machine, _centre, ageDays, doseGrams, basket).Mean) / PerUnit);

    private static double LogWet(double seconds) => Math.Log(Math.Max(1, seconds));

    private double[] Row(
        int bag,
        int machine,
        int basket,
        double ageDays,
        double doseGrams,
        double? meanBar = null,
        double? wetSeconds = null
    ) =>
        [
            1.0,
            ageDays - ReferenceAge,
            Math.Max(0, GassyDays - ageDays),
            Math.Log(doseGrams / ReferenceDose),
            meanBar - _meanBar ?? 0,
            wetSeconds is { } wet ? LogWet(wet) - _meanLogWet : 0,
            .. _bags.Select(b => b == bag ? 1.0 : 0.0),
            .. _machines.Select(m => m == machine ? 1.0 : 0.0),
            .. _baskets.Select(b => b == basket ? 1.0 : 0.0),
        ];

    /// <summary>
    /// The setting that keeps the resistivity as it is wanted at an age in days; null where nothing is known yet. It stays as
    /// near the settings that were tried as the shots bear, and on the grinder's scale.
    /// </summary>
    public double? SettingAt(int bag, int machine, double ageDays, double doseGrams, double wanted, int basket = 0)
    {
        if (_shots.Count == 0)
            return null;
        return Math.Clamp(Best(Math.Log(wanted), bag, machine, ageDays, doseGrams, basket), LowestBelieved, HighestBelieved);
    }

    /// <summary>How far the shots bear: so many steps beyond those tried that a slope as uncertain as this one is off by about
    /// one.</summary>
    private double StepsBeyond => Math.Clamp(1 / Math.Max(0.01, SlopeUncertainty), LeastStepsBeyond, MostStepsBeyond);

    /// <summary>Lowest setting that anything is believed of: some steps below those tried, and not below zero where none
    /// was.</summary>
    private double LowestBelieved =>
        Math.Max(
            _shots.Min(s => s.Setting) - (StepsBeyond * _steps.Step),
            _shots.Min(s => s.Setting) >= 0 ? 0 : double.NegativeInfinity
        );

    /// <summary>Highest setting that anything is believed of.</summary>
    private double HighestBelieved => _shots.Max(s => s.Setting) + (StepsBeyond * _steps.Step);

    /// <summary>Factor on the resistivity that a basket is worth against the machine's own, with the shots it rests on; null
    /// where it was never used.</summary>
    public (double Factor, int Shots)? BasketFactor(int basket)
    {
        var at = _baskets.IndexOf(basket);
        if (at < 0)
            return null;
        var offset = FirstOffset + _bags.Count + _machines.Count + at;
        return (Math.Exp(_slopes.Sum(s => s.Weight * s.Fit.Coefficients[offset])), _shots.Count(s => s.Basket == basket));
    }
}
