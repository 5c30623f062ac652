using System.Globalization;
using RuddySpring.Core.Puck;

namespace RuddySpring.Core.Dialing;

/// <summary>What a shot was set up with, as far as the brewer chooses it.</summary>
public sealed record ShotSetup(
    string Machine,
    string? Beans,
    string? Grinder,
    double? GrindSetting,
    double DoseGrams,
    double YieldGrams,
    string Plan,
    string? Basket,
    Preparation Preparation
);

/// <summary>One thing that is not as it was.</summary>
public sealed record ChangedThing(string What, string Was, string Now);

/// <summary>
/// What differs between two set-ups. Twelve things changed between two shots is how people get lost (common practice): so each is
/// named, and more than one is warned of. A yield that follows its dose at the same ratio is one change, not two.
/// </summary>
public sealed record WhatChanged(IReadOnlyList<ChangedThing> Things, string? Warning)
{
    private const double SameRatio = 0.02;

    // doses are weighed to 0.1 g (common practice): a tenth either way is the same dose
    private const double SameDoseGrams = 0.15;

    /// <summary>What is no longer as it was.</summary>
    public static WhatChanged Between(ShotSetup was, ShotSetup now)
    {
        var things = new List<ChangedThing>();
        void Add(string what, string before, string after)
        {
            if (before != after)
                things.Add(new(what, before, after));
        }

        Add("machine", was.Machine, now.Machine);
        Add("beans", was.Beans ?? "not noted", now.Beans ?? "not noted");
        Add("grinder", was.Grinder ?? "none", now.Grinder ?? "none");
        Add("grind", Number(was.GrindSetting), Number(now.GrindSetting));
        Add("basket", was.Basket ?? "the machine's own", now.Basket ?? "the machine's own");
        var doseMoved = Math.Abs(was.DoseGrams - now.DoseGrams) > SameDoseGrams;
        if (doseMoved)
            Add("dose", Grams(was.DoseGrams), Grams(now.DoseGrams));
        var sameRatio = Math.Abs((now.YieldGrams / now.DoseGrams) - (was.YieldGrams / was.DoseGrams)) < SameRatio;
        if (!doseMoved || !sameRatio)
            Add("yield", Grams(was.YieldGrams), Grams(now.YieldGrams));
        Add("plan", was.Plan, now.Plan);
        var (a, b) = (was.Preparation, now.Preparation);
        Add("misting", Said(a.Misted), Said(b.Misted));
        Add("stirring", Said(a.Stirred), Said(b.Stirred));
        Add("tapping", Said(a.Tapped), Said(b.Tapped));
        Add("tamp", Number(a.TampKgf, " kgf"), Number(b.TampKgf, " kgf"));
        Add("on the puck", Cover(a.Cover), Cover(b.Cover));
        Add("holder", a.Bottomless ? "bottomless" : "spout", b.Bottomless ? "bottomless" : "spout");
        return new(
            things,
            things.Count < 2
                ? null
                : $"{things.Count} things change at once: if the cup differs, nobody can say which of them did it. Change "
                    + "one, keep the rest."
        );
    }

    private static string Grams(double grams) => string.Create(CultureInfo.InvariantCulture, $"{grams:0.0} g");

    private static string Number(double? value, string unit = "") =>
        value is { } v ? string.Create(CultureInfo.InvariantCulture, $"{v:0.##}{unit}") : "not noted";

    private static string Said(bool yes) => yes ? "yes" : "no";

    private static string Cover(PuckCover cover) =>
        cover switch
        {
            PuckCover.Screen => "metal screen",
            PuckCover.Paper => "paper disc",
            _ => "nothing",
        };
}
