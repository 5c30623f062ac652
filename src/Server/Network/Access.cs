using System.Collections.Concurrent;
using RuddySpring.Core;
using RuddySpring.Server.Hosting;
using RuddySpring.Store;

namespace RuddySpring.Server.Network;

/// <summary>A passphrase was tried too often.</summary>
public sealed class TooManyTriesException(TimeSpan wait) : Exception(Sentence(wait))
{
    /// <summary>How long to wait.</summary>
    public TimeSpan Wait { get; } = wait;

    private static string Sentence(TimeSpan wait) =>
        $"Too many wrong passphrases. Try again in {Math.Max(1, Math.Ceiling(wait.TotalSeconds)):0} s.";
}

/// <summary>Who may come in from the home network: the passphrase, the devices that have signed in, the keys of instruments.
/// Nobody until the owner turns it on.</summary>
public sealed class Access
{
    private const int MostDevices = 50;
    private const int MostKeys = 20;
    private static readonly TimeSpan SignedInFor = TimeSpan.FromDays(180);
    private static readonly TimeSpan SeenEvery = TimeSpan.FromMinutes(15);
    private readonly Lock _lock = new();
    private readonly AccessFile _file;
    private readonly TimeProvider _time;
    private readonly SignInBrake _brake;
    private readonly ConcurrentDictionary<HttpContext, string> _open = [];
    private AccessState _state;

    public Access(ServerOptions options, TimeProvider time, Troubles troubles)
    {
        (_file, _time, _brake) = (new(options.DataFolder), time, new(time));
        _state = AccessState.Closed(options.HomePort);
        try
        {
            _state = _file.Read() ?? _state;
        }
        catch (StoreProblemException error)
        {
            troubles.Tell(error.Message);
        }
    }

    /// <summary>As it is now.</summary>
    public AccessState State
    {
        get
        {
            lock (_lock)
                return _state;
        }
    }

    /// <summary>Opens the door; a new passphrase signs everybody out.</summary>
    /// <param name="passphrase">12 to 128 characters; null keeps the one that was set.</param>
    /// <exception cref="DoesNotFitException">There is none, or it may not be one.</exception>
    public AccessState Open(string? passphrase)
    {
        lock (_lock)
        {
            if (passphrase is null && _state.PassphraseHash is null)
                throw new DoesNotFitException("passphrase", "Choose a passphrase first.");
            var next = _state with { IsOn = true };
            if (passphrase is not null)
            {
                next = next with { PassphraseHash = Secrets.HashOf(Secrets.Passphrase(passphrase)), Devices = [] };
                HangUp(_ => true);
            }

            return Keep(next);
        }
    }

    /// <summary>Closes it: what is open is hung up on. Passphrase, devices and keys stay for the next time.</summary>
    public AccessState Close()
    {
        lock (_lock)
        {
            HangUp(_ => true);
            return Keep(_state with { IsOn = false });
        }
    }

    /// <summary>Signs a device in.</summary>
    /// <returns>What its cookie holds.</returns>
    /// <exception cref="TooManyTriesException">The address has to wait.</exception>
    /// <exception cref="NotAllowedException">The passphrase is wrong.</exception>
    public (SignedInDevice Device, string Token) SignIn(string passphrase, string name, string address)
    {
        if (_brake.Try(address) is { Ticks: > 0 } wait)
            throw new TooManyTriesException(wait);
        // the slow part is outside the lock
        var hash = State.PassphraseHash;
        if (hash is null || passphrase.Length > 4 * Secrets.LongestPassphrase || !Secrets.IsPassphrase(hash, passphrase))
            throw new NotAllowedException("That is not the passphrase.");

        _brake.Succeeded(address);
        lock (_lock)
        {
            var token = Secrets.Token();
            var now = Now;
            var device = new SignedInDevice(Secrets.Id(), name, Secrets.FastHashOf(token), now, now, address);
            Keep(
                _state with
                {
                    Devices = [device, .. _state.Devices.Where(IsFresh).OrderByDescending(d => d.LastSeen).Take(MostDevices - 1)],
                }
            );
            return (device, token);
        }
    }

    /// <summary>The device that a cookie belongs to; null where it is unknown, revoked or too old.</summary>
    public SignedInDevice? Find(string token)
    {
        lock (_lock)
        {
            var hash = Secrets.FastHashOf(token);
            var device = _state.Devices.FirstOrDefault(d => Secrets.AreEqual(d.TokenHash, hash));
            if (device is null || !_state.IsOn || !IsFresh(device))
                return null;
            if (Now - device.LastSeen < SeenEvery)
                return device;
            var seen = device with { LastSeen = Now };
            Keep(_state with { Devices = [.. _state.Devices.Select(d => d == device ? seen : d)] });
            return seen;
        }
    }

    /// <summary>Signs a device out: its cookie is worth nothing any more, and what it has open is hung up on.</summary>
    /// <param name="id">Which.</param>
    /// <param name="asking">The request that asks for it, which is still answered.</param>
    public void SignOut(string id, HttpContext? asking = null)
    {
        if (asking is not null)
            _open.TryRemove(asking, out _);
        lock (_lock)
        {
            Keep(_state with { Devices = [.. _state.Devices.Where(d => d.Id != id)] });
            HangUp(of => of == id);
        }
    }

    /// <summary>Makes the key of an instrument.</summary>
    /// <returns>The key, which is told this once.</returns>
    /// <exception cref="DoesNotFitException">There are too many.</exception>
    public (InstrumentKey Made, string Key) MakeKey(string name)
    {
        lock (_lock)
        {
            if (_state.Keys.Count >= MostKeys)
                throw new DoesNotFitException("name", $"There are {MostKeys} keys already. Delete one first.");
            var key = Secrets.Key();
            var made = new InstrumentKey(Secrets.Id(), name, Secrets.FastHashOf(key), Now);
            Keep(_state with { Keys = [.. _state.Keys, made] });
            return (made, key);
        }
    }

    /// <summary>Deletes the key of an instrument, and hangs up on whoever came in with it.</summary>
    public void DeleteKey(string id)
    {
        lock (_lock)
        {
            Keep(_state with { Keys = [.. _state.Keys.Where(k => k.Id != id)] });
            HangUp(of => of == id);
        }
    }

    /// <summary>The instrument that a key belongs to; null where it is unknown.</summary>
    public InstrumentKey? Instrument(string key)
    {
        var hash = Secrets.FastHashOf(key);
        var state = State;
        return state.IsOn ? state.Keys.FirstOrDefault(k => Secrets.AreEqual(k.KeyHash, hash)) : null;
    }

    /// <summary>Keeps a request within reach while it goes on, so that it can be hung up on.</summary>
    /// <param name="context">The request.</param>
    /// <param name="of">Id of the device or key that it came with.</param>
    /// <param name="next">What it does.</param>
    public async Task HoldAsync(HttpContext context, string of, Func<Task> next)
    {
        _open[context] = of;
        try
        {
            // revoked between the look at the cookie and now
            var state = State;
            if (!state.IsOn || !state.Devices.Any(d => d.Id == of) && !state.Keys.Any(k => k.Id == of))
                context.Abort();
            else
                await next();
        }
        finally
        {
            _open.TryRemove(context, out _);
        }
    }

    private DateTime Now => _time.GetUtcNow().UtcDateTime;

    private bool IsFresh(SignedInDevice device) => Now - device.LastSeen < SignedInFor;

    private void HangUp(Func<string, bool> on)
    {
        foreach (var (context, of) in _open)
            if (on(of))
                context.Abort();
    }

    private AccessState Keep(AccessState state)
    {
        _file.Write(state);
        return _state = state;
    }
}
