using System.Threading.RateLimiting;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.RateLimiting;

namespace Daxlin.Service.People;

/// <summary>How often what strangers or programs could wear out may be asked for.</summary>
internal static class Limits
{
    /// <summary>The name of the limit on what checks passwords, codes and links, by address and by what is asked.</summary>
    public const string SignIn = "sign-in";

    private const int TriesInAMinute = 30;

    public static void Add(RateLimiterOptions limits)
    {
        limits.AddPolicy(SignIn, context => RateLimitPartition.GetFixedWindowLimiter(
            $"{context.Connection.RemoteIpAddress} {context.Request.Method} {context.Request.Path}", _ => new FixedWindowRateLimiterOptions { PermitLimit = TriesInAMinute, Window = TimeSpan.FromMinutes(1) }));
        limits.OnRejected = async (refused, _) =>
        {
            refused.HttpContext.Response.Headers.RetryAfter = "60";
            await Problem.Of(StatusCodes.Status429TooManyRequests, "too-many-tries", $"More than {TriesInAMinute} tries in a minute came from this address. Wait a minute.").ExecuteAsync(refused.HttpContext);
        };
    }
}
