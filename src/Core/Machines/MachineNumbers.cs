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

/// <summary>A number of a machine with its range and where it comes from.</summary>
public sealed record MachineNumber(
    string Field,
    string Label,
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
        void Add(FieldRange range, Func<Machine, double?> get, string? label = null)
        {
            if (get(machine) is not { } value)
                return;
            var otherwise = get(family) ?? value;
            var measured = machine.Measured.FirstOrDefault(m => m.Field == range.Field && Math.Abs(m.Value - value) < 1e-9);
            list.Add(
                new(
                    range.Field,
                    label ?? range.Label,
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

        Add(MachineRanges.BasketDiameter, m => m.BasketDiameterMm);
        Add(MachineRanges.Chamber, m => m.ChamberMl, machine.HasBoiler ? "Water of one stroke" : "Chamber up to its line");
        Add(MachineRanges.PistonDiameter, m => m.PistonDiameterMm);
        if (machine.PressureBy != PressureBy.Strokes || machine.Family == MachineFamily.SteppedLever)
        {
            Add(MachineRanges.LeverRatio, m => m.LeverRatio);
            Add(MachineRanges.Friction, m => m.FrictionNewtons);
        }

        if (machine.PressureBy == PressureBy.Arm)
            Add(MachineRanges.WillingForce, m => m.WillingForceKgf);
        Add(MachineRanges.DeadWater, m => m.DeadWaterGrams, "Water that stays behind");
        Add(MachineRanges.Retention, m => m.RetentionPerGram);
        Add(MachineRanges.BoilerGauge, m => m.BoilerGaugeBar);
        Add(MachineRanges.SpringTop, m => m.SpringTopBar);
        Add(MachineRanges.SpringEnd, m => m.SpringEndBar);
        Add(MachineRanges.TrappedAir, m => m.TrappedAirMl);
        if (machine.RestrictorBarS2PerMl2 > 0)
            Add(MachineRanges.Restrictor, m => m.RestrictorBarS2PerMl2);
        Add(
            MachineRanges.MetalHeat,
            m => m.MetalHeatCapacity,
            machine.HasBoiler ? "Heat capacity of the group" : "Heat capacity of chamber and piston"
        );
        return list;
    }
}
