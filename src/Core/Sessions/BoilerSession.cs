using System.Globalization;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Milk;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Sessions;

/// <summary>A session on a machine with a boiler of its own.</summary>
internal sealed class BoilerSession(
    SessionBench bench,
    SessionWants wants,
    SessionProgress progress,
    HeatRun now,
    double waitSeconds,
    double coolUnderK
) : PlanDraft(bench, wants, progress, now, waitSeconds)
{
    private const string ClothTitle = "Cold wet cloth round the group";
    private const string ClothCaution = "The metal is hot and the cloth steams: hold it by its ends.";
    private const string RestTitle = "Rest, switched off";
    private const double BleedSeconds = 14;
    private const double FlushGrams = 30;
    private const double FlushSeconds = 8;
    private const double RinseGrams = 20;
    private const double RinseSeconds = 15;
    private const double KnockSeconds = 20;
    private const double WarmUpLimit = 3600;
    private const int MostFlushes = 8;
    private const double PurgeSeconds = 10;
    private const double WipeSeconds = 10;
    private const double CoolDownSeconds = 600;
    private const double AboveLowK = 1.0;
    private const double FlushWorthK = 3.0;

    private readonly HeatConstants _heat = HeatConstants.Of(bench.Machine);
    private readonly double _shotGrams = Shots.CupVolumes.WaterGrams(bench.Machine, wants.DoseGrams, wants.YieldGrams);
    private readonly GroupBand _band = GroupBand.Of(HeatConstants.Of(bench.Machine));
    private int _refills;

    public SessionPlan Make()
    {
        var now = Run.WaterGrams;
        WarmUp();
        for (var pull = 1; pull <= Wants.Pulls && Problem is null; pull++)
            Pull(pull);
        CleanUp();
        var steam = Math.Max(0, now - _heat.MinimumGrams);
        return Plan(new(now, _heat.MinimumGrams, (int)Math.Floor(steam / _shotGrams), steam, Run.WaterGrams, _refills));
    }

    /// <summary>Where in its band the group should be, as well as it is known now.</summary>
    private GroupBand Aim => _band.ToAimFor(Run.PlusMinusK);

    private double ShotSeconds => Machine.Family == MachineFamily.BoilerSpring ? 45 : 40;

    private void WarmUp()
    {
        if (!IsDone("fill") && !IsDone("on"))
        {
            var air = Run.Air;
            At(
                Time,
                StepKind.Fill,
                "fill",
                FillSeconds,
                "Fill the boiler",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Up to 5 to 10 mm under the top of the sight glass, about {_heat.FillGrams:0} g in all. The "
                        + $"{air.HeadspaceMl(20):0} ml above it are steam space; the level climbs as it heats."
                ),
                "Never open the filler cap while there is pressure."
            );
            Wait(FillSeconds);
        }

        if (!IsDone("on"))
        {
            At(
                Time,
                StepKind.SwitchOn,
                "on",
                5,
                "Switch on",
                "Portafilter in the group, so that it warms with it.",
                "Water must cover the element whenever it is on."
            );
            Run.Add(new(HeatEventKind.On, Time));
            Wait(5);
        }

        if (!IsDone("bleed") && !AnyShotDone)
            Bleed("bleed");
        if (!AnyShotDone)
            BringGroupUp();
    }

    private bool AnyShotDone => DoneSteps.Any(d => d.Kind == StepKind.Shot);

    private void Bleed(string key)
    {
        // the element goes off at the gauge's set pressure while air still makes part of it
        var limit = Time + WarmUpLimit;
        while (Run.Heating && Run.GaugeBar < (Machine.BoilerGaugeBar ?? 1) - 0.03 && Time < limit)
            Wait(5);
        Do(
            StepKind.Bleed,
            key,
            BleedSeconds,
            "Bleed the false pressure",
            string.Create(
                CultureInfo.InvariantCulture,
                $"The gauge shows pressure, yet the water is only near {Quantity.Celsius(Run.BoilerC ?? 0):0}: trapped air "
                    + $"holds it up. Open the steam valve 10 to 15 s until the steam is steady, then close it."
            ),
            "Steam burns: point the wand away, into a cloth or cup."
        );
    }

    private void BringGroupUp()
    {
        var limit = Time + WarmUpLimit;
        while (Run.BoilerC < Run.SetC - 3 && Time < limit)
            Wait(10);
        var flush = DoneSteps.Count(d => d.Kind == StepKind.Flush);
        var ahead = Math.Min(Wants.Pulls, 1 + Wants.SpareBaskets);

        // what can be ground before the first pull is ground while it warms
        var grinding = Enumerable.Range(1, ahead).Where(p => !IsDone($"grind-{p}")).ToArray();
        var handsBusy =
            grinding.Length * Wants.GrindSeconds
            + Enumerable.Range(2, ahead - 1).Count(p => !IsDone($"prepare-{p}")) * PrepareSeconds;
        var groundFrom = Math.Max(Time, NowSeconds);
        while ((!ReadyForFlush() || Time < groundFrom + handsBusy) && Time < limit)
            Wait(10);
        Wait(WaitSeconds);
        var at = Math.Max(groundFrom, Time - handsBusy);
        foreach (var pull in grinding)
        {
            Grind(pull, at);
            at += Wants.GrindSeconds;
            if (pull == 1 || IsDone($"prepare-{pull}"))
                continue;
            Prepare(pull, at);
            at += PrepareSeconds;
        }

        // the first fill warms holder and cup as well, so it is made whatever the group shows; more only while they help and
        // there is water
        while ((!IsDone("flush-1") && flush == 0) || (Run.GroupC < Aim.LowC && flush < MostFlushes && Enough(FlushGrams)))
        {
            flush++;
            Do(
                StepKind.Flush,
                $"flush-{flush}",
                FlushSeconds,
                flush == 1 ? "Blank fill" : $"Blank fill {flush}",
                "Lever up with the empty portafilter locked in, let water through, warm the cup with it: worth {3 K!} to {5 "
                    + "K} at the group.",
                "Hot water: hold only the insulated parts.",
                null,
                FlushGrams
            );
            if (Run.GroupC < Aim.LowC)
                Wait(30);
        }

        while (Run.GroupC < Aim.LowC && Rises() && Time < limit)
            Wait(10);
        if (Run.GroupC < _band.LowC)
            TooCold();
    }

    private void TooCold()
    {
        Problem = string.Create(
            CultureInfo.InvariantCulture,
            $"The group does not reach its band: it stays near {Quantity.Celsius(Run.GroupC):0}, and the band begins at "
                + $"{Quantity.Celsius(_band.LowC):0}."
        );
        if (Run.AirShare > 0.3)
            Remedies.Add("Bleed the false pressure: trapped air switches the element off while the water is cool.");
        Remedies.Add("Set the boiler to a higher pressure, as far as the manual allows.");
        Remedies.Add("Or lower the band under Machines, if your shots taste right as they are.");
    }

    /// <summary>Whether one blank fill brings the group into its band, or it does not rise any more by itself.</summary>
    private bool ReadyForFlush() => Run.GroupC >= Aim.LowC + AboveLowK - FlushWorthK || !Rises();

    private bool Rises()
    {
        var ahead = Run.Clone();
        ahead.AdvanceTo(Time + 60);
        return ahead.GroupC - Run.GroupC >= 0.25;
    }

    private void Pull(int pull)
    {
        var shotKey = $"shot-{pull}";
        if (IsDone(shotKey))
        {
            SteamFor(pull);
            return;
        }

        EnoughWaterFor(pull);
        if (Problem is not null)
            return;
        var grind = IsGround(pull) ? 0 : Wants.GrindSeconds;
        var prepare = IsPrepared(pull) ? 0 : PrepareSeconds;
        var cooled = Cool(pull, grind + prepare);
        if (grind > 0)
            Grind(pull);
        if (prepare > 0)
            Prepare(pull, Time + grind);
        Wait(Math.Max(cooled, grind + prepare));
        Recover(ShotSettleK);
        if (Run.GroupC < Aim.LowC)
            FlushUp(pull);
        if (Problem is not null)
            return;
        var water = _shotGrams;
        Do(
            StepKind.Shot,
            shotKey,
            ShotSeconds,
            $"Pull {pull}{ForWhom(pull)}",
            ShotDetail(),
            Machine.PressureBy == PressureBy.Spring
                ? "A cocked lever flies up if nothing resists it: keep a hand on it and your face away."
                : "Never force a lever that one arm cannot move.",
            pull,
            water,
            Wants.DoseGrams,
            advance: false
        );
        if (Wants.SteamAlongside)
            SteamFor(pull);
        var end = Run.Seconds;
        Run.AdvanceTo(Math.Max(end, LastStepStart + ShotSeconds));
        LastCup = Math.Max(LastCup, Time);
        if (!Wants.SteamAlongside)
            SteamFor(pull);
        Wait(KnockSeconds);
    }

    private const double ShotSettleK = 1.5;

    private double LastStepStart { get; set; }

    private string ShotDetail()
    {
        LastStepStart = Time;
        return string.Create(
            CultureInfo.InvariantCulture,
            $"Let a little steam go first, then lever up: group near {Quantity.Celsius(Run.GroupC):0}, in its band "
                + $"{Math.Round(10 * _band.Chance(Run.GroupC, Run.PlusMinusK)):0} times in ten. {Wants.DoseGrams:0.0} g to "
                + $"{Wants.YieldGrams:0} g{(Wants.CupsAPull == 2 ? ", into two cups" : "")}."
        );
    }

    private bool IsGround(int pull) => IsDone($"grind-{pull}") || (!AnyShotDone && pull <= 1 + Wants.SpareBaskets);

    private bool IsPrepared(int pull) =>
        IsDone($"prepare-{pull}") || (!AnyShotDone && pull > 1 && pull <= 1 + Wants.SpareBaskets);

    /// <summary>Puts a cloth or a rest in where the group would leave its band by lever-up; gives its seconds.</summary>
    private double Cool(int pull, double busy)
    {
        if (IsUnderWay($"cloth-{pull}"))
            return Math.Max(
                0,
                At(
                    Time,
                    StepKind.Cloth,
                    $"cloth-{pull}",
                    0,
                    ClothTitle,
                    "Under way.",
                    ClothCaution,
                    pull,
                    handsFree: true
                ).EndSeconds - Time
            );
        if (IsUnderWay($"rest-{pull}"))
            return Math.Max(
                0,
                At(
                    Time,
                    StepKind.Rest,
                    $"rest-{pull}",
                    0,
                    RestTitle,
                    "Then switch on again.",
                    null,
                    pull,
                    handsFree: true
                ).EndSeconds - Time
            );
        var limit = Aim.HighC;
        if (AfterWaiting(busy, 0, false) <= limit)
            return 0;
        var target = limit - coolUnderK;
        if (Wants.Cloth)
        {
            var seconds = 20.0;
            while (seconds < 600 && AfterWaiting(Math.Max(busy, seconds), seconds, true) > target)
                seconds += 10;
            Do(
                StepKind.Cloth,
                $"cloth-{pull}",
                seconds,
                ClothTitle,
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"For {seconds:0} s, while you grind: the group would be at "
                        + $"{Quantity.Celsius(AfterWaiting(busy, 0, false)):0} at lever-up and the band ends at "
                        + $"{Quantity.Celsius(_band.HighC):0}."
                ),
                "The metal is hot and the cloth steams: hold it by its ends.",
                pull,
                handsFree: true,
                advance: false
            );
            return seconds;
        }

        var rest = 60.0;
        while (rest < 2400 && AfterWaiting(Math.Max(busy, rest), rest, false) > target)
            rest += 30;
        Do(
            StepKind.Rest,
            $"rest-{pull}",
            rest,
            RestTitle,
            string.Create(
                CultureInfo.InvariantCulture,
                $"Switch off for {rest / 60:0.#} min: left on, the group stays hot. Then switch on again."
            ),
            null,
            pull,
            handsFree: true,
            advance: false
        );
        return rest;
    }

    /// <summary>Group in degC after a wait of which the first part is a cloth or a rest, and after the boiler has come
    /// back.</summary>
    private double AfterWaiting(double seconds, double cooling, bool cloth)
    {
        var ahead = Run.Clone();
        var start = ahead.Seconds;
        if (cooling > 0 && cloth)
            ahead.Add(new(HeatEventKind.Cloth, start, cooling));
        if (cooling > 0 && !cloth)
        {
            ahead.Add(new(HeatEventKind.Off, start));
            ahead.Add(new(HeatEventKind.On, start + cooling));
        }

        ahead.AdvanceTo(start + seconds);
        var limit = ahead.Seconds + 1800;
        while (ahead.BoilerC < ahead.SetC - ShotSettleK - 2 && ahead.Seconds < limit)
            ahead.AdvanceTo(ahead.Seconds + 10);
        return ahead.GroupC;
    }

    /// <summary>Waits until the boiler is back at its set pressure.</summary>
    private void Recover(double underK)
    {
        var limit = Time + 1800;
        while (Run.BoilerC < Run.SetC - underK - 2 && Time < limit)
            Wait(10);
    }

    private void FlushUp(int pull)
    {
        // after a refill the group is cold: it comes up by itself first, and fills do the rest
        var limit = Time + WarmUpLimit;
        while (!ReadyForFlush() && Time < limit)
            Wait(10);
        for (var i = 1; i <= MostFlushes && Run.GroupC < Aim.LowC && Enough(FlushGrams + _shotGrams); i++)
        {
            Do(
                StepKind.Flush,
                $"flush-{pull}-{i}",
                FlushSeconds,
                "Blank fill",
                "The group has cooled below its band; one fill brings it up.",
                "Hot water: hold only the insulated parts.",
                pull,
                FlushGrams
            );
            Wait(20);
        }

        if (Run.GroupC < _band.LowC - 1.0)
            TooCold();
    }

    private void SteamFor(int pull)
    {
        var drinks = DrinksOf(pull).Where(d => d.MilkGrams > 0).ToList();
        if (drinks.Count == 0)
            return;
        var grams = Bench.SteamGrams(drinks);
        if (!IsDone($"steam-{pull}"))
        {
            if (!Wants.SteamAlongside)
                Recover(2);
            Do(
                StepKind.Steam,
                $"steam-{pull}",
                grams / _heat.SteamGramsPerS + PurgeSeconds,
                $"Steam milk{ForWhom(pull)}",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{MilkWords.Of(drinks.Select(d => d.Order()))} Purge the wand first. Takes about {grams:0} g of steam."
                ),
                MilkWords.Caution,
                pull,
                grams,
                advance: !Wants.SteamAlongside
            );
            if (Wants.SteamAlongside)
                Run.AdvanceTo(Math.Max(Time, LastStepStart + (grams / _heat.SteamGramsPerS) + PurgeSeconds));
        }

        if (!IsDone($"wipe-{pull}"))
            Do(StepKind.Wipe, $"wipe-{pull}", WipeSeconds, "Wipe and purge the wand", MilkWords.Wipe, MilkWords.Spoils, pull);
        LastCup = Math.Max(LastCup, Time);
    }

    private bool Enough(double grams) => Run.WaterGrams - grams >= _heat.MinimumGrams;

    private void EnoughWaterFor(int pull)
    {
        var need = _shotGrams + Bench.SteamGrams(DrinksOf(pull));
        if (Enough(need))
            return;
        if (_heat.FillGrams - need < _heat.MinimumGrams)
        {
            Problem = string.Create(
                CultureInfo.InvariantCulture,
                $"One pull needs {need:0} g of water, more than a full boiler gives before its element runs dry."
            );
            Remedies.Add("Ask for less milk or a smaller yield.");
            return;
        }

        _refills++;
        var open = Run.Clone();
        open.Add(new(HeatEventKind.Off, open.Seconds));
        var start = open.Seconds;
        while (open.BoilerC > Saturation.BoilingPointC(Bench.AltitudeMetres) + 0.5 && open.Seconds < start + 900)
        {
            open.Add(new(HeatEventKind.Bleed, open.Seconds, 10));
            open.AdvanceTo(open.Seconds + 10);
        }

        Do(
            StepKind.Depressurise,
            $"release-{pull}",
            Math.Max(30, open.Seconds - start),
            "Switch off and release the steam",
            "The boiler is short of water. Open the steam valve until the gauge reads zero and no steam comes.",
            "Steam burns. Never open the filler cap while there is pressure.",
            pull
        );
        Do(
            StepKind.Cool,
            $"cool-{pull}",
            CoolDownSeconds,
            "Let it cool",
            "Ten minutes with the valve open. The manual of the machine comes first.",
            "A boiler stays hot long after switching off.",
            pull,
            handsFree: true
        );
        Do(
            StepKind.Refill,
            $"refill-{pull}",
            FillSeconds,
            "Refill the boiler",
            string.Create(
                CultureInfo.InvariantCulture,
                $"About {_heat.FillGrams - Run.WaterGrams:0} g, to 5 to 10 mm under the top of the glass. Close the cap, "
                    + $"switch on."
            ),
            "Open the cap slowly, with a cloth over it, only when the hissing has stopped.",
            pull,
            _heat.FillGrams - Run.WaterGrams
        );
        Wait(1);
        Bleed($"bleed-{pull}");
        Recover(0);
    }

    private void CleanUp()
    {
        if (!IsDone("rinse"))
        {
            var grams = Enough(RinseGrams) ? RinseGrams : 0;
            Do(
                StepKind.Rinse,
                "rinse",
                RinseSeconds + 30,
                "Last rinse",
                "Knock out, one blank fill, wipe basket, screen and wand.",
                "Wait until the pressure is gone, then turn the holder slowly: one taken off under pressure sprays hot grounds.",
                null,
                grams
            );
        }

        if (!IsDone("off"))
            Do(
                StepKind.SwitchOff,
                "off",
                5,
                "Switch off",
                "Straight after use. Let it cool before you refill it.",
                "Boiler and group stay hot for a long time; keep children away."
            );
    }
}
