using RuddySpring.Core.Shots;

namespace RuddySpring.Core.Heat;

/// <summary>What happens to a machine's heat.</summary>
public enum HeatEventKind
{
    /// <summary>Switched on.</summary>
    On,

    /// <summary>Switched off.</summary>
    Off,

    /// <summary>Steam valve opened to let trapped air out, for its seconds.</summary>
    Bleed,

    /// <summary>Blank fill: water of its grams passes the group in its seconds, nothing in the basket.</summary>
    Flush,

    /// <summary>A shot: water of its grams passes the group and the puck in its seconds.</summary>
    Shot,

    /// <summary>A cold wet cloth round the group, for its seconds.</summary>
    Cloth,

    /// <summary>Steam of its grams taken for milk, over its seconds.</summary>
    Steam,

    /// <summary>Cold water of its grams filled into the boiler, the filler closed again.</summary>
    Refill,

    /// <summary>Portafilter taken out of the group.</summary>
    PortafilterOut,

    /// <summary>Portafilter back in the group.</summary>
    PortafilterIn,

    /// <summary>Chamber filled with kettle water of its grams and degC, left for its seconds, poured out. A blank press is a
    /// short one.</summary>
    FillAndHold,

    /// <summary>Kettle steam of its degC under the cylinder, for its seconds.</summary>
    SteamBath,

    /// <summary>The cylinder in the boiling kettle of its degC, for its seconds.</summary>
    Submersion,

    /// <summary>Heater of the group set to its degC.</summary>
    HeaterStep,
}

/// <summary>One thing that happens to a machine's heat.</summary>
/// <param name="Kind">What.</param>
/// <param name="AtSeconds">When it begins, s since the session's start.</param>
/// <param name="Seconds">How long, s, 0 or more.</param>
/// <param name="Grams">Water or steam that it moves, g.</param>
/// <param name="DoseGrams">Coffee in the basket, g.</param>
/// <param name="ValueC">Temperature that comes with it, degC.</param>
/// <param name="BloomSeconds">Part of a kettle shot's seconds before pressure, s.</param>
public sealed record HeatEvent(
    HeatEventKind Kind,
    double AtSeconds,
    double Seconds = 0,
    double Grams = 0,
    double DoseGrams = 0,
    double ValueC = 0,
    double BloomSeconds = 0
)
{
    /// <summary>When it ends, s.</summary>
    public double EndSeconds => AtSeconds + Seconds;
}

/// <summary>A point of the computed course.</summary>
/// <param name="Seconds">Since the session's start.</param>
/// <param name="GroupC">Outside of the group, or metal of the chamber, degC.</param>
/// <param name="PlusMinusK">One standard deviation of it, K.</param>
/// <param name="BoilerC">Water in the boiler, degC; null without one.</param>
/// <param name="GaugeBar">What the boiler's gauge shows, bar; null without one.</param>
public sealed record HeatPoint(double Seconds, double GroupC, double PlusMinusK, double? BoilerC, double? GaugeBar);

/// <summary>Heat of one shot.</summary>
/// <param name="AtSeconds">Lever-up, s since the session's start.</param>
/// <param name="LeverUpC">Group at lever-up, degC.</param>
/// <param name="PlusMinusK">One standard deviation of it, K.</param>
/// <param name="WaterC">Mean water as it reaches the puck, degC.</param>
/// <param name="Course">Water at the puck through the shot, from the moment that pressing begins.</param>
/// <param name="FlashedK">How far the hottest of it came above its boiling point here, K; 0 for not at all.</param>
public sealed record ShotHeat(
    double AtSeconds,
    double LeverUpC,
    double PlusMinusK,
    double WaterC,
    WaterCourse Course,
    double FlashedK
);

/// <summary>What was exchanged with the outside since the start, J. Stored = at start + heater + brought - lost -
/// carried.</summary>
public sealed record HeatAccount(
    double StoredAtStartJ,
    double StoredJ,
    double HeaterJ,
    double BroughtJ,
    double LostJ,
    double CarriedJ
);
