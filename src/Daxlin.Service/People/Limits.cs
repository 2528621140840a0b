using System.Threading.RateLimiting;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.RateLimiting;

namespace Daxlin.Service.People;

/// <summary>How often what strangers or programs could wear out may be asked for.</summary>
internal static class Limits
{
    /// <summary>The name of the limit on what checks passwords, codes and links, by address and by what is asked.</summary>
    public const string SignIn = "sign-in";

    /// <summary>The name of the limit on what works long or takes much in, by person: so much at once, and the rest waits its turn.</summary>
    public const string Heavy = "heavy";

    private const int TriesInAMinute = 30;
    private const int AtOnce = 8;
    private const int Waiting = 200;

    public static void Add(RateLimiterOptions limits)
    {
        limits.AddPolicy(SignIn, context => RateLimitPartition.GetFixedWindowLimiter(
            $"{context.Connection.RemoteIpAddress} {context.Request.Method} {context.Request.Path}", _ => new FixedWindowRateLimiterOptions { PermitLimit = TriesInAMinute, Window = TimeSpan.FromMinutes(1) }));
        limits.AddPolicy(Heavy, context => RateLimitPartition.GetConcurrencyLimiter(
            context.User.Identity?.Name ?? "", _ => new ConcurrencyLimiterOptions { PermitLimit = AtOnce, QueueLimit = Waiting, QueueProcessingOrder = QueueProcessingOrder.OldestFirst }));
        limits.OnRejected = async (refused, _) =>
        {
            var context = refused.HttpContext;
            var isHeavy = context.GetEndpoint()?.Metadata.GetMetadata<EnableRateLimitingAttribute>()?.PolicyName == Heavy;
            context.Response.Headers.RetryAfter = isHeavy ? "5" : "60";
            await (isHeavy ? Problem.Of(StatusCodes.Status429TooManyRequests, "too-much-at-once", $"{AtOnce} such requests of {context.User.Identity?.Name} are worked on and {Waiting} wait. Send this one again later.")
                : Problem.Of(StatusCodes.Status429TooManyRequests, "too-many-tries", $"More than {TriesInAMinute} tries in a minute came from this address. Wait a minute.")).ExecuteAsync(context);
        };
    }
}
