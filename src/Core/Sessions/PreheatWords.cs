using System.Globalization;
using RuddySpring.Core.Heat;

namespace RuddySpring.Core.Sessions;

/// <summary>What each way of preheating is called, how it is done, and what can hurt.</summary>
public static class PreheatWords
{
    /// <summary>Title, how, caution.</summary>
    public static (string Title, string How, string Caution) Of(Preheat way) =>
        way.Method switch
        {
            PreheatMethod.FillAndHold => (
                way.Times > 1 ? $"Fill and hold, {way.Times} times" : "Fill and hold",
                string.Create(
                    CultureInfo.InvariantCulture,
                    $"Fill the chamber with boiling water, leave it {way.Seconds / way.Times:0} s, pour it "
                        + $"out{(way.Times > 1 ? ", and again" : "")}, then fill for the shot."
                ),
                "Pour slowly, hands off the stream."
            ),
            PreheatMethod.SteamBath => (
                "Steam bath",
                "Stand the cylinder over the boiling kettle's steam, piston and screen in it.",
                "Steam burns: keep fingers and face out of it and lift the cylinder with a cloth."
            ),
            PreheatMethod.Submersion => (
                "Submersion",
                "Lay the cylinder in the kettle while it boils; take it out with tongs.",
                "Hot metal and boiling water: use tongs, switch the kettle off first."
            ),
            PreheatMethod.BlankPresses => (
                $"Blank presses, {way.Times} times",
                "Fill with boiling water and press it through the empty basket; it warms holder and cup as well.",
                "Pour slowly, hands off the stream; hot water comes out below."
            ),
            PreheatMethod.ElectricStep => (
                "Heater on",
                FormattableString.Invariant(
                    $"Switch the group's heater to its {Quantity.Celsius(way.StepC):0} step, portafilter and screen in place."
                ),
                "The group burns at the top step; unplug before you touch its covers, and leave its wiring to a licensed "
                    + "technician."
            ),
            _ => (
                "No preheat",
                "Some press lightly with boiling water and preheat nothing.",
                "Pour slowly, hands off the stream."
            ),
        };
}
