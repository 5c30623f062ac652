using RuddySpring.Core.Beans;

namespace RuddySpring.Core.Tests.Beans;

public sealed class GrinderScaleTests
{
    [Fact] // equal steps multiply the resistance equally, and finer is more
    public void A_grinders_steps_multiply()
    {
        var scale = new GrinderScale(20, -0.075);
        Assert.Equal(6.0, scale.Resistance(20, 6.0), 1e-12);
        Assert.True(scale.Resistance(18, 6.0) > 6.0);
        Assert.Equal(scale.Resistance(19, 6.0) / 6.0, 6.0 / scale.Resistance(21, 6.0), 1e-12);
    }
}
