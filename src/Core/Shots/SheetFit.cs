using System.Runtime.CompilerServices;
using RuddySpring.Core.Machines;
using RuddySpring.Core.Puck;
using RuddySpring.Core.Pulls;
using RuddySpring.Core.Water;

namespace RuddySpring.Core.Shots;

/// <summary>What a sheet asks of its machine, and whether that fits: water, cup and force.</summary>
/// <param name="NeedGrams">Water to move, g; null while dose or yield is out of range.</param>
/// <param name="NeedMl">The same hot, ml.</param>
/// <param name="MostGrams">Most that the machine moves, g.</param>
/// <param name="LargestYieldGrams">Largest cup from this dose, g; null likewise.</param>
/// <param name="Fits">Whether the water fits.</param>
/// <param name="FitSentence">Why, or what to change.</param>
/// <param name="HandForceKgf">Force at the handle at the plan's peak; null on a spring or pump.</param>
/// <param name="ForceSentence">What that force means.</param>
/// <param name="Puck">How the dose lies in the basket; null where basket and chamber are one, or the dose does not do.</param>
public sealed record SheetFit(
    double? NeedGrams,
    double? NeedMl,
    double MostGrams,
    double? LargestYieldGrams,
    bool Fits,
    string FitSentence,
    double? HandForceKgf,
    string ForceSentence,
    PuckFit? Puck
)
{
    /// <summary>Works it out.</summary>
    /// <param name="machine">The machine.</param>
    /// <param name="plan">The plan.</param>
    /// <param name="basket">The basket; null for the machine's own.</param>
    /// <param name="sound">Whether dose and yield are in range.</param>
    /// <param name="doseGrams">Dose, g.</param>
    /// <param name="yieldGrams">Yield, g.</param>
    /// <param name="waterC">Water at the puck, degC.</param>
    /// <param name="roastLevel">Roast; empty for not known.</param>
    /// <param name="cover">What lies on the puck.</param>
    public static SheetFit Of(
        Machine machine,
        PullPlan plan,
        Basket? basket,
        bool sound,
        double doseGrams,
        double yieldGrams,
        double waterC,
        string roastLevel,
        PuckCover cover
    )
    {
        var density = LiquidWater.DensityGramsPerMl(waterC);
        var inBasket = machine.Family == MachineFamily.TwinArmBasket;
        var most = CupVolumes.MostWaterGrams(machine, waterC);
        // where basket and chamber are one, coffee and screen take the water's room
        if (inBasket && sound && basket is not null)
            most = Math.Min(most, PuckFit.WaterRoomGrams(basket, doseGrams, roastLevel, cover, density));
        double? need = sound ? CupVolumes.WaterGrams(machine, doseGrams, yieldGrams) : null;
        double? largest = sound ? CupVolumes.CupGrams(machine, doseGrams, most) : null;
        double? force = machine.PressureBy == PressureBy.Arm ? Lever.HandForceKgf(machine, plan.PeakBar) : null;
        return new(
            need,
            need / density,
            most,
            largest,
            need <= most,
            FitWords(machine, need, most, largest),
            force,
            ForceWords(machine, plan, force),
            sound && !inBasket ? PuckFit.Of(basket ?? Basket.Of(machine), doseGrams, roastLevel, cover) : null
        );
    }

    private static string FitWords(Machine machine, double? need, double most, double? largest)
    {
        var holder = machine.HasBoiler
            ? machine.StrokesAShot == 1
                ? "one stroke moves"
                : $"{machine.StrokesAShot} strokes move"
            : machine.Family == MachineFamily.TwinArmBasket
                ? "over the coffee the basket takes"
                : "the chamber takes";
        if (need is null)
            return Words($"At most {most:0} g: that is what {holder}.");
        return need <= most
            ? Words($"Fits: {holder} {most:0} g, so up to {largest:0} g in the cup from this dose.")
            : Words(
                $"Does not fit: {holder} {most:0} g and this needs {need:0} g. Ask for at most {Math.Floor(largest ?? 0):0} "
                    + $"g in the cup, or take less coffee."
            );
    }

    private static string ForceWords(Machine machine, PullPlan plan, double? force)
    {
        if (machine.PressureBy == PressureBy.Spring)
            return Words(
                $"The spring gives up to {Quantity.Bar(machine.SpringTopBar ?? 0):0.0} by itself; the hand only guides the lever."
            );
        if (machine.PressureBy == PressureBy.Strokes)
            return Words($"Stroke by stroke up to {Quantity.Bar(plan.PeakBar):0.#}.");
        return force <= machine.WillingForceKgf
            ? Words(
                $"{Quantity.Kgf(force ?? 0):0.0} at the handle at {Quantity.Bar(plan.PeakBar):0.#}, of the "
                    + $"{Quantity.Kgf(machine.WillingForceKgf):0} you are willing to use."
            )
            : Words(
                $"{Quantity.Kgf(force ?? 0):0.0} at {Quantity.Bar(plan.PeakBar):0.#} is more than the "
                    + $"{Quantity.Kgf(machine.WillingForceKgf):0} you are willing to use: the peak will be "
                    + $"{Quantity.Bar(Lever.PressureBar(machine, machine.WillingForceKgf)):0.0}."
            );
    }

    // the invariant culture is set for the whole process
    private static string Words(DefaultInterpolatedStringHandler sentence) => sentence.ToStringAndClear();
}
