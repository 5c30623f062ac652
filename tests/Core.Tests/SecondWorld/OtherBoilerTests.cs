using RuddySpring.Core.Heat;

namespace RuddySpring.Core.Tests.SecondWorld;

public sealed class OtherBoilerTests(ITestOutputHelper output)
{
    private static readonly HeatEvent[] Morning =
    [
        new(HeatEventKind.On, 0),
        new(HeatEventKind.Bleed, 345, 14),
        .. Enumerable.Range(0, 5).Select(i => new HeatEvent(HeatEventKind.Shot, 1500 + (i * 180), 30, 45, 14)),
    ];

    [Fact] // common practice on a small dipper: what the second world's boilers must look like to be worth a test
    public void The_second_worlds_boilers_warm_and_heat_as_people_report()
    {
        var machines = Enumerable
            .Range(7000, 41)
            .Select(i => new OtherBoiler(new SeededRandom((ulong)i), altitudeMetres: 0))
            .ToArray();
        double Median(Func<OtherBoiler, double> of)
        {
            var sorted = machines.Select(of).Order().ToArray();
            return sorted[sorted.Length / 2];
        }

        double At(OtherBoiler m, double seconds) => m.Bell(Morning, [seconds])[0];
        var after20 = Median(m => At(m, 1200));
        var after25 = Median(m => At(m, 1500));
        var shot = Median(m => m.Bell(Morning, [1500, 1560]) is var b ? b[1] - b[0] : 0);
        var third = Median(m => At(m, 1860));
        var fourth = Median(m => At(m, 2040));
        var settled = Median(m => m.Bell(Morning[..2], [9000])[0]);
        var spread = machines.Select(m => At(m, 1500)).ToArray() is var groups
            ? Math.Sqrt(groups.Average(g => Math.Pow(g - groups.Average(), 2)))
            : 0;
        output.WriteLine(
            $"between machines +-{spread:0.0} K, after 20 min {after20:0.0}, 25 min {after25:0.0}, a shot +{shot:0.0}, "
                + $"third {third:0.0}, fourth {fourth:0.0}, left on {settled:0.0}"
        );
        Assert.InRange(spread, 3, 5.5); // a family's default is good to about 4 K
        Assert.InRange(after20, 70, 74);
        Assert.InRange(after25, 74, 78);
        Assert.InRange(shot, 4, 6);
        Assert.InRange(third, 78, 86);
        Assert.InRange(fourth, 83, 90);
        Assert.InRange(settled, 77, 85);
    }
}
