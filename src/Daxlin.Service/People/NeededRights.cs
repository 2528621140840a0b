using Daxlin.Core.People;
using Microsoft.AspNetCore.Authorization;

namespace Daxlin.Service.People;

/// <summary>Says of each endpoint which right it needs. What only shows something needs the right to see; what changes anything says its right itself.</summary>
internal static class NeededRights
{
    /// <summary>What changes anything below needs a right; what only shows something, the right to see.</summary>
    public static TBuilder ChangesNeed<TBuilder>(this TBuilder endpoints, Right right)
        where TBuilder : IEndpointConventionBuilder => endpoints.WithMetadata(new RightToChange(right));

    /// <summary>An endpoint needs a right, whatever holds for those around it.</summary>
    public static TBuilder Needs<TBuilder>(this TBuilder endpoints, Right right)
        where TBuilder : IEndpointConventionBuilder => endpoints.WithMetadata(new NeededRight(right));

    /// <summary>Endpoints below need someone who is signed in, whatever his rights.</summary>
    public static TBuilder NeedsAnyone<TBuilder>(this TBuilder endpoints)
        where TBuilder : IEndpointConventionBuilder => endpoints.WithMetadata(new NeededRight(null));

    /// <summary>Endpoints below are for those who are not signed in yet, too.</summary>
    public static TBuilder NeedsNobody<TBuilder>(this TBuilder endpoints)
        where TBuilder : IEndpointConventionBuilder => endpoints.WithMetadata(new AllowAnonymousAttribute());

    /// <summary>An endpoint changes nothing, though it is asked by POST.</summary>
    public static TBuilder OnlyLooks<TBuilder>(this TBuilder endpoint)
        where TBuilder : IEndpointConventionBuilder => endpoint.WithMetadata(new LooksOnly());

    /// <summary>An endpoint goes over all groups of batches and vendors, and is for those who are held to none.</summary>
    public static TBuilder NeedsAllGroups<TBuilder>(this TBuilder endpoint)
        where TBuilder : IEndpointConventionBuilder => endpoint.WithMetadata(new WholeOnly());

    /// <exception cref="InvalidOperationException">An endpoint that changes something does not say which right it needs.</exception>
    public static void Guard(RouteGroupBuilder api) => ((IEndpointConventionBuilder)api).Finally(endpoint =>
    {
        if (endpoint.Metadata.OfType<IAllowAnonymous>().Any())
            return;
        var needed = endpoint.Metadata.OfType<NeededRight>().LastOrDefault();
        if (needed is null)
        {
            var methods = endpoint.Metadata.OfType<HttpMethodMetadata>().LastOrDefault()?.HttpMethods ?? [];
            var isShowing = methods.Count > 0 && methods.All(HttpMethods.IsGet);
            needed = new NeededRight(isShowing ? Right.See : endpoint.Metadata.OfType<RightToChange>().LastOrDefault()?.Right
                ?? throw new InvalidOperationException($"{endpoint.DisplayName} changes something and does not say which right it needs."));
            endpoint.Metadata.Add(needed);
        }
        endpoint.Metadata.Add(new AuthorizeAttribute(PolicyOf(needed.Right)));
    });

    public static void AddPolicies(AuthorizationOptions options)
    {
        options.AddPolicy(PolicyOf(null), policy => policy.RequireAuthenticatedUser());
        foreach (var right in Enum.GetValues<Right>())
            options.AddPolicy(PolicyOf(right), policy => policy.RequireAuthenticatedUser().RequireAssertion(context => PersonClaims.RightsOf(context.User).Contains(right)));
    }

    public static string PolicyOf(Right? right) => right is { } needed ? Roles.Word(needed) : "anyone";
}

/// <summary>The right that an endpoint needs; null if it is enough to be signed in.</summary>
internal sealed record NeededRight(Right? Right);

/// <summary>The right that what changes anything in a group of endpoints needs.</summary>
internal sealed record RightToChange(Right Right);
