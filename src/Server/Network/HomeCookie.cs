using System.Security.Claims;
using Microsoft.AspNetCore.Authentication;
using Microsoft.AspNetCore.Authentication.Cookies;
using Microsoft.AspNetCore.DataProtection;

namespace RuddySpring.Server.Network;

/// <summary>
/// The cookie of a device that has signed in: the framework's cookie authentication over a random token of which only the hash is
/// kept. A token says nothing, needs no key ring to read it, and is worth nothing from the moment its device is signed out.
/// </summary>
public static class HomeCookie
{
    /// <summary>Name of the scheme.</summary>
    public const string Scheme = "home";

    /// <summary>Claim that holds the device's id.</summary>
    public const string Device = "device";

    private const string Token = "token";
    private static readonly TimeSpan Lasts = TimeSpan.FromDays(180);

    public static void AddHomeCookie(this IServiceCollection services)
    {
        services.AddAuthenticationCore();
        services.AddWebEncoders();
        // nothing is protected with it: the cookie holds a random token
        services.AddSingleton<IDataProtectionProvider, EphemeralDataProtectionProvider>();
        new AuthenticationBuilder(services).AddCookie(Scheme);
        services
            .AddOptions<CookieAuthenticationOptions>(Scheme)
            .Configure<Access>(
                (cookie, access) =>
                {
                    cookie.Cookie.Name = "ruddy-spring";
                    cookie.Cookie.HttpOnly = true;
                    cookie.Cookie.SameSite = SameSiteMode.Strict;
                    cookie.Cookie.SecurePolicy = CookieSecurePolicy.SameAsRequest;
                    cookie.Cookie.MaxAge = Lasts;
                    cookie.ExpireTimeSpan = Lasts;
                    cookie.TicketDataFormat = new Tickets(access);
                }
            );
    }

    /// <summary>Signs in the device that asks.</summary>
    public static Task SignInAsync(HttpContext context, SignedInDevice device, string token) =>
        context.SignInAsync(
            Scheme,
            PrincipalOf(device),
            new AuthenticationProperties(new Dictionary<string, string?> { [Token] = token }) { IsPersistent = true }
        );

    private static ClaimsPrincipal PrincipalOf(SignedInDevice device) =>
        new(new ClaimsIdentity([new Claim(Device, device.Id), new Claim(ClaimTypes.Name, device.Name)], Scheme));

    private sealed class Tickets(Access access) : ISecureDataFormat<AuthenticationTicket>
    {
        public string Protect(AuthenticationTicket data) => data.Properties.Items[Token]!;

        public string Protect(AuthenticationTicket data, string? purpose) => Protect(data);

        public AuthenticationTicket? Unprotect(string? protectedText) =>
            protectedText is { Length: > 0 and < 200 } && access.Find(protectedText) is { } device
                ? new(PrincipalOf(device), Scheme)
                : null;

        public AuthenticationTicket? Unprotect(string? protectedText, string? purpose) => Unprotect(protectedText);
    }
}
