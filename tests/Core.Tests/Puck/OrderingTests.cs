using CsCheck;
using RuddySpring.Core.Puck;

namespace RuddySpring.Core.Tests.Puck;

/// <summary>Orderings that must hold whatever the numbers (common practice): properties over the whole range.</summary>
public sealed class OrderingTests
{
    private static readonly Gen<(PuckParameters Puck, double Bar)> Any = Gen.Select(
            Gen.Double[8, 22],
            Gen.Double[1.5, 15],
            Gen.Double[75, 97],
            Gen.Double[0, 0.4],
            Gen.Double[3, 10]
        )
        .Select(
            (dose, resistance, water, spread, bar) =>
                (
                    new PuckParameters
                    {
                        DoseGrams = dose,
                        ResistanceBarSPerMl = resistance,
                        WaterC = water,
                        LaneSpread = spread,
                    },
                    bar
                )
        );

    private static double OutAfter(PuckParameters puck, double bar, double seconds)
    {
        var model = new PuckModel(puck);
        for (var i = 0; i < seconds / 0.05; i++)
            model.Step(bar, 0.05);
        return model.OutflowMl;
    }

    [Fact]
    public void Finer_never_flows_faster() =>
        Any.Sample(
            x =>
                OutAfter(x.Puck with { ResistanceBarSPerMl = x.Puck.ResistanceBarSPerMl * 1.2 }, x.Bar, 25)
                <= OutAfter(x.Puck, x.Bar, 25) + 1e-9,
            iter: 150
        );

    [Fact]
    public void Colder_never_flows_faster() =>
        Any.Sample(
            x => OutAfter(x.Puck with { WaterC = x.Puck.WaterC - 10 }, x.Bar, 25) <= OutAfter(x.Puck, x.Bar, 25) + 1e-9,
            iter: 150
        );

    [Fact]
    public void Less_pressure_never_flows_faster() =>
        Any.Sample(x => OutAfter(x.Puck, x.Bar * 0.8, 25) <= OutAfter(x.Puck, x.Bar, 25) + 1e-9, iter: 150);

    [Fact] // at one grind the resistance grows with the dose
    public void More_dose_never_flows_faster() =>
        Any.Sample(
            x =>
                OutAfter(
                    x.Puck with
                    {
                        DoseGrams = x.Puck.DoseGrams * 1.15,
                        ResistanceBarSPerMl = x.Puck.ResistanceBarSPerMl * 1.15,
                    },
                    x.Bar,
                    25
                )
                <= OutAfter(x.Puck, x.Bar, 25) + 1e-9,
            iter: 150
        );

    [Fact]
    public void More_yield_never_extracts_less() =>
        Any.Sample(
            x =>
            {
                var model = new PuckModel(x.Puck);
                var last = 0.0;
                for (var i = 0; i < 600; i++)
                {
                    model.Step(x.Bar, 0.05);
                    if (model.ExtractionShare < last)
                        return false;
                    last = model.ExtractionShare;
                }

                return last <= x.Puck.Behaviour.SolubleShare + 1e-12;
            },
            iter: 150
        );
}
