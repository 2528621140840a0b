using System.Collections.Immutable;
using System.Reflection;
using System.Security.Claims;
using Daxlin.Core.People;
using Daxlin.Service.People;

namespace Daxlin.Service.Web;

/// <summary>Who makes a request and answers for what it changes.</summary>
/// <param name="Name">As the history tells it: of a program, the name of the key's owner.</param>
/// <param name="PersonId">Null at a desk without sign-in, where nobody has a record.</param>
/// <param name="For">The approver for whom one stands in; empty for nobody, and for one who approves in the own name.</param>
/// <param name="Key">The name of the access key that a program showed; empty for a person.</param>
public sealed record Actor(string Name, int? PersonId, ImmutableSortedSet<Right> Rights, string For, string Key)
{
    /// <summary>Whose approval it is.</summary>
    public Approver Approver => new(Name, For);

    public static Actor Of(ClaimsPrincipal user) =>
        new(user.Identity?.Name ?? "", PersonClaims.IdOf(user), PersonClaims.RightsOf(user), user.FindFirstValue(PersonClaims.ForClaim) ?? "", user.FindFirstValue(PersonClaims.KeyClaim) ?? "");

    public static ValueTask<Actor?> BindAsync(HttpContext context, ParameterInfo parameter) => ValueTask.FromResult<Actor?>(Of(context.User));
}
