using Microsoft.Extensions.Time.Testing;
using RuddySpring.Server.Network;

namespace RuddySpring.Server.Tests.Network;

/// <summary>Guessing gets slower and slower; who knows the passphrase is not kept out for long.</summary>
public sealed class SignInBrakeTests
{
    [Fact]
    public void AFewSlipsCostNothingAndAGuesserGetsFewTriesADay()
    {
        var time = new FakeTimeProvider(DateTimeOffset.UnixEpoch.AddYears(50));
        var brake = new SignInBrake(time);
        for (var slip = 0; slip < 3; slip++)
            brake.Try("192.0.2.7");
        Assert.Equal(TimeSpan.Zero, brake.WaitOf("192.0.2.7"));

        // tries as soon as it may, a whole day long
        var tries = 3;
        for (var until = time.GetUtcNow().AddDays(1); time.GetUtcNow() < until; tries++)
        {
            brake.Try("192.0.2.7");
            time.Advance(brake.WaitOf("192.0.2.7") + TimeSpan.FromMilliseconds(1));
        }

        Assert.InRange(tries, 50, 130); // one in a quarter of an hour, once it has slowed down
    }

    [Fact]
    public void ManyAddressesTogetherAreSlowedAsOneIs()
    {
        var time = new FakeTimeProvider(DateTimeOffset.UnixEpoch.AddYears(50));
        var brake = new SignInBrake(time);
        var tries = 0;
        for (var until = time.GetUtcNow().AddDays(1); time.GetUtcNow() < until && tries < 10_000; tries++)
        {
            var address = $"198.51.100.{tries % 250}.{tries}";
            time.Advance(brake.WaitOf(address) + TimeSpan.FromMilliseconds(1));
            brake.Try(address);
        }

        Assert.InRange(tries, 50, 150);
        // and it is over an hour after they have stopped
        time.Advance(TimeSpan.FromMinutes(61));
        Assert.Equal(TimeSpan.Zero, brake.WaitOf("192.0.2.7"));
    }

    [Fact]
    public void TheRightPassphraseClearsWhatAnAddressDidWrong()
    {
        var brake = new SignInBrake(new FakeTimeProvider(DateTimeOffset.UnixEpoch.AddYears(50)));
        for (var slip = 0; slip < 4; slip++)
            brake.Try("a");
        Assert.NotEqual(TimeSpan.Zero, brake.WaitOf("a"));
        Assert.Equal(TimeSpan.Zero, brake.WaitOf("b"));
        brake.Succeeded("a");
        Assert.Equal(TimeSpan.Zero, brake.WaitOf("a"));
    }
}
