using RuddySpring.Core.Water;
using static RuddySpring.Core.Heat.MachineNodes;

namespace RuddySpring.Core.Heat;

/// <summary>
/// The boiler of a machine with its pressurestat and the air trapped in it; for a machine without one, the thermostat of a heated
/// group. Water that leaves is taken out of it, and it says what it could not give or take.
/// </summary>
internal sealed class HeatedBoiler(HeatState state)
{
    // 10 to 15 s until the steam is steady (common practice); vapour from the element sweeps the air out well before the bulk of
    // the water boils, from about 75 degC on
    private const double AirLeavesInSeconds = 3.0;
    private const double SweptFromC = 74.0;
    private const double SweptWithinK = 1.0;
    private const double NoAirLeft = 0.01;
    private const double GroupThermostatK = 1.0;
    private const double LowestSwitchBar = 0.02;

    private double _sealedAtC = Math.Max(1.0, state.AmbientC);
    private Threshold _offAtC = new() { AtC = double.NaN },
        _onAtC = new() { AtC = double.NaN };

    /// <summary>Share of the sealed-in air that is still there, 0 to 1.</summary>
    public double AirShare { get; private set; } = state.Constants.AirAtStart;

    /// <summary>Boiler with its air as it stands.</summary>
    public TrappedAir Air =>
        new(state.Constants.BoilerVolumeMl, state.Nodes.WaterGrams, AirShare, _sealedAtC, state.AtmosphereBar);

    /// <summary>Temperature of the water, degC.</summary>
    public double WaterC => state.TemperatureC[Boiler];

    /// <summary>Temperature at which the element goes off, degC, with the air that is in it now.</summary>
    public double OffAtC => state.Machine.HasBoiler ? Kept(ref _offAtC, SetBar) : state.GroupSetC + GroupThermostatK;

    /// <summary>Temperature at which it goes on again, degC.</summary>
    public double OnAtC =>
        state.Machine.HasBoiler
            ? Kept(ref _onAtC, Math.Max(LowestSwitchBar, SetBar - state.Constants.HysteresisBar))
            : state.GroupSetC - GroupThermostatK;

    private double SetBar => state.Machine.BoilerGaugeBar ?? 1.0;

    /// <summary>The same boiler in a copied state.</summary>
    public HeatedBoiler CloneInto(HeatState copy) =>
        new(copy)
        {
            AirShare = AirShare,
            _sealedAtC = _sealedAtC,
            _offAtC = _offAtC,
            _onAtC = _onAtC,
        };

    /// <summary>Cold water filled in and the cap closed again, with the air above it; gives the grams that found no
    /// room.</summary>
    public double Refill(double grams)
    {
        var room =
            (state.Constants.BoilerVolumeMl - TrappedAir.SmallestHeadspaceMl)
            * LiquidWater.DensityGramsPerMl(Math.Max(1, state.AmbientC));
        var taken = Math.Min(grams, Math.Max(0, room - state.Nodes.WaterGrams));
        var before = state.Nodes.BoilerJPerK;
        var brought = taken * Steam.WaterJPerGK * state.AmbientC;
        state.Nodes.WaterGrams += taken;
        state.TemperatureC[Boiler] = ((before * state.TemperatureC[Boiler]) + brought) / state.Nodes.BoilerJPerK;
        state.BroughtJ += brought;
        AirShare = state.Constants.AirAtStart;
        _sealedAtC = Math.Clamp(state.TemperatureC[Boiler], 1.0, state.BoilingC - 1.0);
        Unset();
        return grams - taken;
    }

    /// <summary>Takes water out; gives the grams that were really there.</summary>
    public double Draw(double grams)
    {
        var taken = Math.Min(grams, state.Nodes.WaterGrams);
        state.Nodes.WaterGrams -= taken;
        Unset();
        return taken;
    }

    /// <summary>Lets steam out, no more than the heat above boiling makes; gives the grams for which there was no
    /// water.</summary>
    public double LetSteam(double grams)
    {
        var latent = Steam.LatentJPerG(Math.Clamp(WaterC, 80, 140));
        var wanted = Math.Min(grams, Math.Max(0, state.Nodes.BoilerJPerK * (WaterC - state.BoilingC) / latent));
        var mass = Math.Min(wanted, state.Nodes.WaterGrams);
        if (mass <= 0)
            return wanted;
        state.CarriedJ += mass * (latent + (Steam.WaterJPerGK * WaterC));
        state.Nodes.WaterGrams -= mass;
        state.TemperatureC[Boiler] -= mass * latent / state.Nodes.BoilerJPerK;
        Unset();
        return wanted - mass;
    }

    /// <summary>
    /// The steam valve stands open for some seconds: what is above the atmosphere's pressure leaves at once, and vapour sweeps
    /// the rest out where the element makes enough of it.
    /// </summary>
    public void LetAir(double seconds)
    {
        if (AirShare <= 0)
            return;
        var vented = AirShare * Math.Max(0, state.AtmosphereBar - Saturation.PressureBar(WaterC)) / Air.AirBar(WaterC);
        var target = Math.Min(AirShare, vented / (1.0 + Math.Exp((WaterC - SweptFromC) / SweptWithinK)));
        AirShare = target + ((AirShare - target) * Math.Exp(-seconds / AirLeavesInSeconds));
        if (AirShare < NoAirLeft)
            AirShare = 0;
        Unset();
    }

    /// <summary>Corrects the water's temperature to degC.</summary>
    public void Shift(double toC)
    {
        state.BroughtJ += state.Nodes.BoilerJPerK * (toC - WaterC);
        state.TemperatureC[Boiler] = toC;
    }

    /// <summary>Water or air has changed: the temperatures at which it switches are to be found again.</summary>
    private void Unset() => (_offAtC.IsOf, _onAtC.IsOf) = (false, false);

    private double Kept(ref Threshold threshold, double gaugeBar)
    {
        if (!threshold.IsOf)
            threshold = new() { AtC = Air.WaterC(gaugeBar, threshold.AtC), IsOf = true };
        return threshold.AtC;
    }

    private struct Threshold
    {
        public double AtC;
        public bool IsOf;
    }
}
