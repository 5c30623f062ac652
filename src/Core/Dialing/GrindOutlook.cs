namespace RuddySpring.Core.Dialing;

/// <summary>What age will do to a bag's grind: the settings that keep the resistance its last shot is believed to have
/// had.</summary>
/// <param name="Now">Today.</param>
/// <param name="InThreeDays">In three days.</param>
/// <param name="InAWeek">In a week.</param>
public sealed record GrindOutlook(double Now, double InThreeDays, double InAWeek)
{
    /// <summary>Of a bag from its last shot; what is believed of that shot counts, so that one odd puck does not set the
    /// course.</summary>
    /// <param name="advice">What was learned of its grinder.</param>
    /// <param name="last">Its last shot.</param>
    /// <param name="ageDays">Its rest today, days.</param>
    /// <param name="ages">False while it is frozen, which stops its clock.</param>
    public static GrindOutlook Of(GrindAdvice advice, GrindShot last, double ageDays, bool ages)
    {
        var wanted = Math.Exp(
            advice.Predict(last.Bag, last.Machine, last.Setting, last.AgeDays, last.DoseGrams, last.Basket).Mean
        );
        double At(double days) =>
            advice.SettingAt(last.Bag, last.Machine, ageDays + (ages ? days : 0), last.DoseGrams, wanted, last.Basket)
            ?? last.Setting;
        return new(At(0), At(3), At(7));
    }
}
