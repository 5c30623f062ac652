using RuddySpring.Core.Fitting;

namespace RuddySpring.Core.Dialing;

/// <summary>A shot as the grind is learned from it: what was set, and the resistance that came of it.</summary>
/// <param name="Bag">Which bag.</param>
/// <param name="Machine">Which machine; baskets differ.</param>
/// <param name="Setting">On the grinder's own scale.</param>
/// <param name="AgeDays">Days from roast.</param>
/// <param name="DoseGrams">Dose, g.</param>
/// <param name="R10">Resistance, bar s/ml, above 0.</param>
/// <param name="Basket">Which basket; 0 for the machine's own.</param>
public sealed record GrindShot(int Bag, int Machine, double Setting, double AgeDays, double DoseGrams, double R10, int Basket = 0);

/// <summary>A grinder's scale: its step, and which way is finer.</summary>
public sealed record GrinderSteps(double Step, bool FinerIsLower);

/// <summary>What to set next.</summary>
/// <param name="Setting">On the grinder's own scale, a whole number of its steps.</param>
/// <param name="Low">Lower end of the settings that may well be the right one (80 %).</param>
/// <param name="High">Upper end.</param>
/// <param name="Chance">Chance that this setting lands in the wanted band, 0 to 1.</param>
/// <param name="StepShare">How much one step moves R10, as a share.</param>
/// <param name="TooCoarse">Whether one step moves R10 by more than the band is wide.</param>
/// <param name="InAWeek">What ageing alone will make the setting in seven days.</param>
/// <param name="Shots">Shots of this bag on this grinder that it rests on.</param>
public sealed record GrindSuggestion(
    double Setting, double Low, double High, double Chance, double StepShare, bool TooCoarse, double InAWeek, int Shots);

/// <summary>
/// How a grinder's setting goes with the resistance it makes, learned from shots: ln R10 = a + b (setting - s_0) + c (age - 8) +
/// d ln(dose / 15) + an offset for each bag and machine, by Bayesian linear regression. Its prior says something sensible after one shot:
/// a puck's resistance goes in proportion to its dose and falls by about a hundredth a day as the bag ages (common practice: a little finer
/// every week); one step is worth a few hundredths to a quarter. It looks at R10 alone, so what the arm or the heat did is not blamed on
/// the grind.
/// </summary>
public sealed class GrindAdvice
{
    private const int StepsBeyond = 5;
    private const double ReferenceAge = 8;
    private const double ReferenceDose = 15;
    private const double NoiseShare = 0.09;
    private const double NoiseWeight = 6;
    private static readonly Belief Intercept = new(Math.Log(9.0), 0.7);
    private static readonly Belief Ageing = new(-0.011, 0.006);
    private static readonly Belief Dose = new(1.0, 0.3);
    private static readonly Belief BagOffset = new(0, 0.35);
    private static readonly Belief MachineOffset = new(0, 0.25);
    private static readonly Belief BasketOffset = new(0, 0.15);

    private readonly BayesianFit _fit;
    private readonly GrinderSteps _steps;
    private readonly double _centre;
    private readonly List<int> _bags;
    private readonly List<int> _machines;
    private readonly List<int> _baskets;
    private readonly IReadOnlyList<GrindShot> _shots;

    private GrindAdvice(
        BayesianFit fit, GrinderSteps steps, double centre, List<int> bags, List<int> machines, List<int> baskets, IReadOnlyList<GrindShot> shots) =>
        (_fit, _steps, _centre, _bags, _machines, _baskets, _shots) = (fit, steps, centre, bags, machines, baskets, shots);

    /// <summary>Change of ln R10 a unit of the grinder's scale.</summary>
    public double PerUnit => _fit.Coefficients[1];

    /// <summary>Change of ln R10 a day.</summary>
    public double PerDay => _fit.Coefficients[2];

    /// <summary>Learns from all shots of one grinder.</summary>
    /// <param name="steps">Its scale.</param>
    /// <param name="shots">Shots with an R10, of any bag and machine; at least one, or a setting to start from is needed.</param>
    public static GrindAdvice Learn(GrinderSteps steps, IReadOnlyList<GrindShot> shots)
    {
        var centre = shots.Count > 0 ? shots.Average(s => s.Setting) : 0;
        var bags = shots.Select(s => s.Bag).Distinct().ToList();
        var machines = shots.Select(s => s.Machine).Distinct().ToList();
        var baskets = shots.Select(s => s.Basket).Where(b => b != 0).Distinct().ToList();
        // one step is worth some hundredths to a quarter: 0.08 on a scale of clicks, of either sign as the scale runs
        var perUnit = 0.08 / steps.Step * (steps.FinerIsLower ? -1 : 1);
        var prior = new List<Belief> { Intercept, new(perUnit, Math.Abs(perUnit) * 0.7), Ageing, Dose };
        prior.AddRange(bags.Select(_ => BagOffset));
        prior.AddRange(machines.Select(_ => MachineOffset));
        prior.AddRange(baskets.Select(_ => BasketOffset));
        var rows = shots.Select(s => Row(centre, bags, machines, baskets, s.Bag, s.Machine, s.Basket, s.Setting, s.AgeDays, s.DoseGrams)).ToArray();
        var fit = BayesianFit.Of(prior, NoiseShare, NoiseWeight, rows, [.. shots.Select(s => Math.Log(s.R10))]);
        return new(fit, steps, centre, bags, machines, baskets, shots);
    }

    /// <summary>What ln R10 a setting gives.</summary>
    public Prediction Predict(int bag, int machine, double setting, double ageDays, double doseGrams, int basket = 0)
    {
        var row = Row(_centre, _bags, _machines, _baskets, bag, machine, basket, setting, ageDays, doseGrams);
        var known = _fit.Predict(row);
        // a bag, machine or basket never seen adds its own spread
        var extra = (_bags.Contains(bag) ? 0 : Math.Pow(BagOffset.Deviation, 2)) + (_machines.Contains(machine) ? 0 : Math.Pow(MachineOffset.Deviation, 2))
            + (basket == 0 || _baskets.Contains(basket) ? 0 : Math.Pow(BasketOffset.Deviation, 2));
        return known with { Scale = Math.Sqrt((known.Scale * known.Scale) + extra) };
    }

    /// <summary>The setting most likely to land R10 between two bounds; null where there is no shot to start from.</summary>
    public GrindSuggestion? Suggest(int bag, int machine, double ageDays, double doseGrams, WantedResistance wanted, int basket = 0)
    {
        if (_shots.Count == 0 || PerUnit == 0) return null;
        var target = Math.Log(wanted.Best);
        double For(double age) => Best(target, bag, machine, age, doseGrams, basket);
        var ideal = For(ageDays);
        var chances = Enumerable.Range(-3, 7).Select(i => (Math.Round(ideal / _steps.Step) + i) * _steps.Step)
            .Select(s => (Setting: s, Chance: Predict(bag, machine, s, ageDays, doseGrams, basket).Chance(Math.Log(wanted.Low), Math.Log(wanted.High))));
        var best = chances.OrderByDescending(c => c.Chance).ThenBy(c => Math.Abs(c.Setting - ideal)).First();
        var predicted = Predict(bag, machine, ideal, ageDays, doseGrams, basket);
        var spread = Math.Abs((predicted.Quantile(0.9) - predicted.Mean) / PerUnit);
        var step = Math.Abs(PerUnit) * _steps.Step;
        return new(
            best.Setting, ideal - spread, ideal + spread, best.Chance, Math.Exp(step) - 1.0, step > Math.Log(wanted.High / wanted.Low),
            Math.Clamp(For(ageDays + 7), LowestBelieved, HighestBelieved), _shots.Count(s => s.Bag == bag));
    }

    private double Best(double target, int bag, int machine, double ageDays, double doseGrams, int basket) =>
        _centre + ((target - Predict(bag, machine, _centre, ageDays, doseGrams, basket).Mean) / PerUnit);

    private static double[] Row(
        double centre, List<int> bags, List<int> machines, List<int> baskets, int bag, int machine, int basket, double setting, double ageDays,
        double doseGrams) =>
    [
        1.0, setting - centre, ageDays - ReferenceAge, Math.Log(doseGrams / ReferenceDose), .. bags.Select(b => b == bag ? 1.0 : 0.0),
        .. machines.Select(m => m == machine ? 1.0 : 0.0), .. baskets.Select(b => b == basket ? 1.0 : 0.0),
    ];

    /// <summary>
    /// The setting that keeps R10 as it is wanted at an age in days; null where nothing is known yet. It stays within a few steps of the settings
    /// that were tried, and on the grinder's scale: a slope that is hardly known carries no further.
    /// </summary>
    public double? SettingAt(int bag, int machine, double ageDays, double doseGrams, double wantedR10, int basket = 0)
    {
        if (_shots.Count == 0 || PerUnit == 0) return null;
        return Math.Clamp(Best(Math.Log(wantedR10), bag, machine, ageDays, doseGrams, basket), LowestBelieved, HighestBelieved);
    }

    /// <summary>Lowest setting that anything is believed of: some steps below those tried, and not below zero where none was.</summary>
    private double LowestBelieved => Math.Max(_shots.Min(s => s.Setting) - (StepsBeyond * _steps.Step), _shots.Min(s => s.Setting) >= 0 ? 0 : double.NegativeInfinity);

    /// <summary>Highest setting that anything is believed of.</summary>
    private double HighestBelieved => _shots.Max(s => s.Setting) + (StepsBeyond * _steps.Step);

    /// <summary>Factor on R10 that a basket is worth against the machine's own, with the shots it rests on; null where it was never used.</summary>
    public (double Factor, int Shots)? BasketFactor(int basket)
    {
        var at = _baskets.IndexOf(basket);
        return at < 0 ? null : (Math.Exp(_fit.Coefficients[4 + _bags.Count + _machines.Count + at]), _shots.Count(s => s.Basket == basket));
    }
}
