using RuddySpring.Core.Beans;

namespace RuddySpring.Core.Tests.Beans;

public sealed class BeanTests
{
    [Theory] // common practice: rest 4 to 5 days, best from 7, most stop at 3 weeks, no crema past 6
    [InlineData(0, RestState.TooFresh)]
    [InlineData(3, RestState.TooFresh)]
    [InlineData(5, RestState.Resting)]
    [InlineData(7, RestState.Ready)]
    [InlineData(21, RestState.Ready)]
    [InlineData(22, RestState.Fading)]
    [InlineData(42, RestState.Fading)]
    [InlineData(43, RestState.Stale)]
    public void Age_has_its_state_and_its_sentence(int days, RestState state)
    {
        Assert.Equal(state, BeanAge.State(days));
        Assert.Contains($"{days} days from roast", BeanAge.Meaning(days), StringComparison.Ordinal);
    }

    [Fact] // equal steps multiply the resistance equally, and finer is more
    public void A_grinders_steps_multiply()
    {
        var scale = new GrinderScale(20, -0.075);
        Assert.Equal(6.0, scale.Resistance(20, 6.0), 1e-12);
        Assert.True(scale.Resistance(18, 6.0) > 6.0);
        Assert.Equal(scale.Resistance(19, 6.0) / 6.0, 6.0 / scale.Resistance(21, 6.0), 1e-12);
    }
}
