using CsCheck;
using RuddySpring.Core.Heat;

namespace RuddySpring.Core.Tests.Heat;

/// <summary>When a node reaches a temperature, against Newton's law of heating in closed form.</summary>
public sealed class CrossingTests
{
    private const double HeatJPerK = 500;
    private const double LossWPerK = 2;

    /// <summary>One node at a temperature, heated with a power toward a room at 20 degC.</summary>
    private static HeatNetwork At(double fromC, double watts)
    {
        var network = new HeatNetwork([HeatJPerK], [], [LossWPerK]);
        network.Begin([fromC], [(LossWPerK * 20) + watts]);
        return network;
    }

    [Fact] // T(t) = T_end + (T_0 - T_end) exp(-t H / C), so t = C / H ln((T_0 - T_end) / (T - T_end))
    public void A_heated_node_reaches_a_temperature_when_newtons_law_says() =>
        Gen.Select(Gen.Double[20, 60], Gen.Double[100, 400], Gen.Double[0.1, 0.9])
            .Sample(
                (from, watts, share) =>
                {
                    var end = 20 + (watts / LossWPerK);
                    if (end <= from + 1)
                        return true;
                    var limit = from + (share * (end - from));
                    var expected = HeatJPerK / LossWPerK * Math.Log((from - end) / (limit - end));
                    var found = At(from, watts).FirstCrossing(0, limit, rising: true, 4000);
                    return Math.Abs(found!.Value - expected) < 1e-4 * Math.Max(1, expected);
                }
            );

    [Fact]
    public void A_cooling_node_crosses_from_above_and_one_that_never_gets_there_does_not()
    {
        var network = At(90, 0);
        var expected = HeatJPerK / LossWPerK * Math.Log((90 - 20) / (50.0 - 20));
        Assert.Equal(expected, network.FirstCrossing(0, 50, rising: false, 2000)!.Value, 1e-3);
        Assert.Null(network.FirstCrossing(0, 50, rising: false, expected - 1));
        Assert.Null(At(30, 50).FirstCrossing(0, 80, rising: true, 5000)); // ends at 45 degC
    }

    [Fact]
    public void A_node_that_is_past_it_already_crosses_at_once() =>
        Assert.Equal(0.01, At(90, 0).FirstCrossing(0, 80, rising: true, 60)!.Value, 9);
}
