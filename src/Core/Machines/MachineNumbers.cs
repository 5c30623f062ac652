namespace RuddySpring.Core.Machines;

/// <summary>Where a number of a machine comes from.</summary>
public enum NumberOrigin
{
    /// <summary>The family's rounded default.</summary>
    Family,

    /// <summary>The owner's.</summary>
    Owner,

    /// <summary>Measured.</summary>
    Measured,
}

/// <summary>What a number of a machine is for.</summary>
public enum NumberGroup
{
    /// <summary>What goes in and comes out.</summary>
    CoffeeAndWater,

    /// <summary>How the pressure is made.</summary>
    Pressure,

    /// <summary>What is rarely changed.</summary>
    Rare,
}

/// <summary>A number of a machine with its range and where it comes from.</summary>
public sealed record MachineNumber(
    string Field,
    string Label,
    NumberGroup Group,
    string Unit,
    double Min,
    double Max,
    double Value,
    double FamilyValue,
    NumberOrigin Origin,
    double? PlusMinus,
    string? Way
);

/// <summary>The numbers that a machine goes by; what it does not have is not listed.</summary>
public static class MachineNumbers
{
    /// <summary>All numbers of a machine that its family has.</summary>
    public static IReadOnlyList<MachineNumber> Of(Machine machine)
    {
        var family = FamilyDefaults.Of(machine.Family).Machine;
        var list = new List<MachineNumber>();
        void Add(FieldRange range, NumberGroup group, Func<Machine, double?> get, string? label = null)
        {
            if (get(machine) is not { } value)
                return;
            var otherwise = get(family) ?? value;
            var measured = machine.Measured.FirstOrDefault(m => m.Field == range.Field && Math.Abs(m.Value - value) < 1e-9);
            list.Add(
                new(
                    range.Field,
                    label ?? range.Label,
                    group,
                    range.Unit,
                    range.Min,
                    range.Max,
                    value,
                    otherwise,
                    measured is not null ? NumberOrigin.Measured
                        : Math.Abs(value - otherwise) < 1e-9 ? NumberOrigin.Family
                        : NumberOrigin.Owner,
                    measured?.PlusMinus,
                    measured?.Way
                )
            );
        }

        Add(MachineRanges.BasketDiameter, NumberGroup.CoffeeAndWater, m => m.BasketDiameterMm);
        Add(
            MachineRanges.Chamber,
            NumberGroup.CoffeeAndWater,
            m => m.ChamberMl,
            machine.HasBoiler ? "Water of one stroke" : "Chamber up to its line"
        );
        Add(MachineRanges.PistonDiameter, NumberGroup.Pressure, m => m.PistonDiameterMm);
        if (machine.PressureBy != PressureBy.Strokes || machine.Family == MachineFamily.SteppedLever)
        {
            Add(MachineRanges.LeverRatio, NumberGroup.Pressure, m => m.LeverRatio);
            Add(MachineRanges.Friction, NumberGroup.Rare, m => m.FrictionNewtons);
        }

        if (machine.PressureBy == PressureBy.Arm)
            Add(MachineRanges.WillingForce, NumberGroup.Pressure, m => m.WillingForceKgf);
        Add(MachineRanges.DeadWater, NumberGroup.Rare, m => m.DeadWaterGrams, "Water that stays behind");
        Add(MachineRanges.Retention, NumberGroup.Rare, m => m.RetentionPerGram);
        Add(MachineRanges.BoilerGauge, NumberGroup.Pressure, m => m.BoilerGaugeBar);
        Add(MachineRanges.SpringTop, NumberGroup.Pressure, m => m.SpringTopBar);
        Add(MachineRanges.SpringEnd, NumberGroup.Pressure, m => m.SpringEndBar);
        Add(MachineRanges.TrappedAir, NumberGroup.Rare, m => m.TrappedAirMl);
        if (machine.RestrictorBarS2PerMl2 > 0)
            Add(MachineRanges.Restrictor, NumberGroup.Rare, m => m.RestrictorBarS2PerMl2);
        Add(
            MachineRanges.MetalHeat,
            NumberGroup.Rare,
            m => m.MetalHeatCapacity,
            machine.HasBoiler ? "Heat capacity of the group" : "Heat capacity of chamber and piston"
        );
        return list;
    }
}
