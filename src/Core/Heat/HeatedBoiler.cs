using RuddySpring.Core.Water;
using static RuddySpring.Core.Heat.MachineNodes;

namespace RuddySpring.Core.Heat;

/// <summary>
/// The boiler of a machine with its pressurestat and the air trapped in it; for a machine without one, the thermostat of a heated group.
/// Water that leaves is taken out of it, and it says what it could not give or take.
/// </summary>
internal sealed class HeatedBoiler(HeatState state)
{
    // vapour from the element sweeps the air out of the open valve well before the bulk of the water boils; 10 to 15 s until the steam is
    // steady (common practice)
    private const double AirLeavesInSeconds = 3.0;
    private const double AirLeavesAboveC = 75.0;
    private const double NoAirLeft = 0.01;
    private const double GroupThermostatK = 1.0;
    private const double LowestSwitchBar = 0.02;

    private double _sealedAtC = Math.Max(1.0, state.AmbientC);
    private double _offAtC = double.NaN, _onAtC = double.NaN;

    /// <summary>Share of the sealed-in air that is still there, 0 to 1.</summary>
    public double AirShare { get; private set; } = state.Constants.AirAtStart;

    /// <summary>Boiler with its air as it stands.</summary>
    public TrappedAir Air => new(state.Constants.BoilerVolumeMl, state.Nodes.WaterGrams, AirShare, _sealedAtC, state.AtmosphereBar);

    /// <summary>Temperature of the water, degC.</summary>
    public double WaterC => state.TemperatureC[Boiler];

    /// <summary>Temperature at which the element goes off, degC, with the air that is in it now.</summary>
    public double OffAtC
    {
        get
        {
            Thresholds();
            return _offAtC;
        }
    }

    /// <summary>Temperature at which it goes on again, degC.</summary>
    public double OnAtC
    {
        get
        {
            Thresholds();
            return _onAtC;
        }
    }

    /// <summary>The same boiler in a copied state.</summary>
    public HeatedBoiler CloneInto(HeatState copy) =>
        new(copy) { AirShare = AirShare, _sealedAtC = _sealedAtC, _offAtC = _offAtC, _onAtC = _onAtC };

    /// <summary>Cold water filled in and the cap closed again, with the air above it; gives the grams that found no room.</summary>
    public double Refill(double grams)
    {
        var room = (state.Constants.BoilerVolumeMl - TrappedAir.SmallestHeadspaceMl) * LiquidWater.DensityGramsPerMl(Math.Max(1, state.AmbientC));
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

    /// <summary>Lets steam out, no more than the heat above boiling makes; gives the grams for which there was no water.</summary>
    public double LetSteam(double grams)
    {
        var latent = Steam.LatentJPerG(Math.Clamp(WaterC, 80, 140));
        var wanted = Math.Min(grams, Math.Max(0, state.Nodes.BoilerJPerK * (WaterC - state.BoilingC) / latent));
        var mass = Math.Min(wanted, state.Nodes.WaterGrams);
        if (mass <= 0) return wanted;
        state.CarriedJ += mass * (latent + (Steam.WaterJPerGK * WaterC));
        state.Nodes.WaterGrams -= mass;
        state.TemperatureC[Boiler] -= mass * latent / state.Nodes.BoilerJPerK;
        Unset();
        return wanted - mass;
    }

    /// <summary>The steam valve stands open for some seconds: air leaves with the vapour.</summary>
    public void LetAir(double seconds)
    {
        if (WaterC <= AirLeavesAboveC) return;
        AirShare *= Math.Exp(-seconds / AirLeavesInSeconds);
        if (AirShare < NoAirLeft) AirShare = 0;
        Unset();
    }

    /// <summary>Corrects the water's temperature to degC.</summary>
    public void Shift(double toC)
    {
        state.BroughtJ += state.Nodes.BoilerJPerK * (toC - WaterC);
        state.TemperatureC[Boiler] = toC;
    }

    private void Unset() => _offAtC = double.NaN;

    private void Thresholds()
    {
        if (!state.Machine.HasBoiler)
        {
            (_offAtC, _onAtC) = (state.GroupSetC + GroupThermostatK, state.GroupSetC - GroupThermostatK);
            return;
        }

        if (!double.IsNaN(_offAtC)) return;
        var air = Air;
        var set = state.Machine.BoilerGaugeBar ?? 1.0;
        _offAtC = air.WaterC(set);
        _onAtC = air.WaterC(Math.Max(LowestSwitchBar, set - state.Constants.HysteresisBar));
    }
}
