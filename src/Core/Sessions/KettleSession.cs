using System.Globalization;
using RuddySpring.Core.Heat;
using RuddySpring.Core.Milk;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Sessions;

/// <summary>A session on a machine that a kettle fills.</summary>
internal sealed class KettleSession(
    SessionBench bench,
    SessionWants wants,
    SessionProgress progress,
    HeatRun now,
    double waitSeconds
) : PlanDraft(bench, wants, progress, now, waitSeconds)
{
    private const double KettleWatts = 1800;
    private const double PourSeconds = 10;
    private const double PurgeSeconds = 30;
    private const double FrothSeconds = 90;
    private const double ReboilSeconds = 45;

    private readonly Preheat _way = wants.PreheatOn(bench.Machine);
    private int _kettles = 1;
    private double _kettleGrams = wants.KettleGrams;

    public SessionPlan Make()
    {
        var fill = KettlePreheat.FillGrams(Machine, KettleC);
        var now = Wants.KettleGrams - DoneSteps.Where(d => !d.Skipped && d.Kind is StepKind.Shot).Sum(_ => fill);
        _kettleGrams = now;
        var held = _way.Method is PreheatMethod.FillAndHold or PreheatMethod.BlankPresses ? fill * _way.Times : 0;
        if (fill + held > Wants.KettleGrams)
        {
            Problem = string.Create(
                CultureInfo.InvariantCulture,
                $"The kettle holds {Wants.KettleGrams:0} g; one pull with its preheat takes {fill + held:0} g."
            );
            Remedies.Add("Use a larger kettle, or another way to preheat.");
        }

        Begin(held);
        for (var pull = 1; pull <= Wants.Pulls; pull++)
            Pull(pull, fill);
        if (!IsDone("rinse"))
            Do(
                StepKind.Rinse,
                "rinse",
                60,
                "Last rinse",
                "Knock out, rinse chamber, basket and screen, dry them.",
                "Metal stays hot; hold only the insulated parts."
            );
        if (_way.Method == PreheatMethod.ElectricStep && !IsDone("off"))
            Do(
                StepKind.SwitchOff,
                "off",
                5,
                "Switch the heater off",
                "Straight after use.",
                "The group stays hot for a long time."
            );
        return Plan(new(now, 0, (int)Math.Floor(now / fill), 0, _kettleGrams, _kettles - 1));
    }

    private double BoilSeconds(double grams) => Math.Max(60, grams * Steam.WaterJPerGK * (KettleC - 15) / KettleWatts);

    private void Begin(double held)
    {
        if (AnyShotDone)
            return;
        var ahead = Math.Min(Wants.Pulls, 1 + Wants.SpareBaskets);
        var start = Math.Max(Time, NowSeconds + WaitSeconds);
        Run.AdvanceTo(start);
        var free = Time; // hands are free from here while kettle and steam work
        var electric = _way.Method == PreheatMethod.ElectricStep;
        var ready = Time;
        if (electric && !IsDone("preheat"))
        {
            var done = Preheat();
            ready = done.EndSeconds;
        }

        if (!IsDone("boil-1"))
        {
            var boil = BoilSeconds(Wants.KettleGrams);
            // an electric group takes longer than the kettle: boil so that both are there together
            var at = Math.Max(Time, ready - boil);
            var kettle = At(
                at,
                StepKind.Boil,
                "boil-1",
                boil,
                "Boil the kettle",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"{Wants.KettleGrams:0} g of fresh water. It boils at {Quantity.Celsius(KettleC):0.0} here."
                ),
                "Boiling water: keep children away.",
                handsFree: true
            );
            ready = Math.Max(ready, kettle.EndSeconds);
        }

        if (!electric && _way.Method != PreheatMethod.None && !IsDone("preheat"))
        {
            Run.AdvanceTo(Math.Max(Time, ready));
            ready = Preheat().EndSeconds;
            _kettleGrams -= held;
        }

        var busy = 0.0;
        for (var pull = 1; pull <= ahead; pull++)
        {
            if (!IsDone($"grind-{pull}"))
                busy += Wants.GrindSeconds;
            if (!IsDone($"prepare-{pull}"))
                busy += PrepareSeconds;
        }

        var until = Math.Max(ready, free + busy);
        var from = until - busy;
        for (var pull = 1; pull <= ahead; pull++)
        {
            if (!IsDone($"grind-{pull}"))
            {
                Grind(pull, from);
                from += Wants.GrindSeconds;
            }

            if (IsDone($"prepare-{pull}"))
                continue;
            Prepare(pull, from);
            from += PrepareSeconds;
        }

        Run.AdvanceTo(until);
    }

    private bool AnyShotDone => DoneSteps.Any(d => d.Kind == StepKind.Shot);

    private SessionStep Preheat()
    {
        var (title, detail, caution) = PreheatWords.Of(_way);
        return Do(
            StepKind.Preheat,
            "preheat",
            _way.Seconds,
            title,
            detail,
            caution,
            handsFree: _way.Method is not PreheatMethod.BlankPresses,
            advance: false
        );
    }

    private void Pull(int pull, double fill)
    {
        if (!IsDone($"shot-{pull}"))
        {
            var ahead = AnyShotDone ? 0 : 1 + Wants.SpareBaskets;
            if (pull > 1)
            {
                if (!IsDone($"purge-{pull}"))
                    Do(
                        StepKind.Purge,
                        $"purge-{pull}",
                        PurgeSeconds,
                        "Purge and knock out",
                        "Press what is left of the water into another cup, so that the puck comes out dry; knock out, rinse "
                            + "the screen.",
                        "Wait until the pressure is gone, then turn the holder slowly.",
                        pull
                    );
                Again(pull, fill);
                var busy = Time;
                if (pull > ahead && !IsDone($"grind-{pull}"))
                {
                    Grind(pull, busy);
                    busy += Wants.GrindSeconds;
                }

                if (pull > ahead && !IsDone($"prepare-{pull}"))
                {
                    Prepare(pull, busy);
                    busy += PrepareSeconds;
                }

                Run.AdvanceTo(Math.Max(busy, Time + ReboilSeconds));
            }

            Do(
                StepKind.Shot,
                $"shot-{pull}",
                PourSeconds + Wants.BloomSeconds + KettlePreheat.PressSeconds,
                $"Pull {pull}{ForWhom(pull)}",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Pour {fill:0} g straight off the boil, no air left under the piston, wait {Wants.BloomSeconds:0} s, "
                        + $"press. {Wants.DoseGrams:0.0} g to {Wants.YieldGrams:0} "
                        + $"g{(Wants.CupsAPull == 2 ? ", into two cups" : "")}."
                ),
                "Pour slowly, hands off the stream. Check that the holder is fully seated before you press.",
                pull,
                fill,
                Wants.DoseGrams
            );
            _kettleGrams -= fill;
            LastCup = Math.Max(LastCup, Time);
        }

        var milk = DrinksOf(pull).Where(d => d.MilkGrams > 0).Select(d => d.Order()).ToList();
        if (milk.Count == 0 || IsDone($"froth-{pull}"))
            return;
        Do(
            StepKind.Froth,
            $"froth-{pull}",
            FrothSeconds,
            $"Froth milk{ForWhom(pull)}",
            $"{MilkWords.Frothed(milk)} This machine gives no steam.",
            null,
            pull
        );
        LastCup = Math.Max(LastCup, Time);
    }

    private void Again(int pull, double fill)
    {
        if (_kettleGrams >= fill)
        {
            At(
                Time,
                StepKind.Boil,
                $"boil-{pull}",
                ReboilSeconds,
                "Bring the kettle back to the boil",
                "While you get the next puck ready.",
                null,
                pull,
                handsFree: true
            );
            return;
        }

        _kettles++;
        _kettleGrams = Wants.KettleGrams;
        Do(
            StepKind.Boil,
            $"boil-{pull}",
            BoilSeconds(Wants.KettleGrams),
            "Refill the kettle and boil it",
            "It is too low for another pull.",
            "Boiling water: keep children away.",
            pull,
            handsFree: true
        );
    }
}
