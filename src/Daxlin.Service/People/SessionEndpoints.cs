using System.Security.Claims;
using Daxlin.Core.People;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Http.HttpResults;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People;

/// <summary>Signing in and out, and what a person does with the own password and second factor.</summary>
internal static class SessionEndpoints
{
    public static void Map(RouteGroupBuilder api)
    {
        var session = api.MapGroup("/session").WithTags("People");
        session.MapGet("", Show).WithSummary("Who one is to the service, and what one may do.").NeedsNobody();
        session.MapPost("", SignIn).WithSummary("Signs in with name and password, and with a code where a second factor is set up.").NeedsNobody().RequireRateLimiting(Limits.SignIn);
        session.MapDelete("", SignOut).WithSummary("Signs out; the cookie is worth nothing any more.").NeedsAnyone();
        session.MapGet("/sign-ins", SignIns).WithSummary("One's own sign-ins that have not ended, newest first.").NeedsAnyone();
        session.MapPost("/sign-ins/{name}/end", EndSignIn).WithSummary("Ends one of one's own sign-ins, at whatever browser it is.").NeedsAnyone();
        session.MapPut("/password", ChangePassword).WithSummary("Changes the own password; all other sign-ins end.").NeedsAnyone().RequireRateLimiting(Limits.SignIn);
        session.MapPost("/second-factor", BeginSecondFactor).WithSummary("Begins to set up a second factor; it holds once a code of it was shown.").NeedsAnyone();
        session.MapPut("/second-factor", ConfirmSecondFactor).WithSummary("Shows a code of the authenticator that was set up: from now on, each sign-in needs one.").NeedsAnyone().RequireRateLimiting(Limits.SignIn);
        session.MapPost("/second-factor/end", DropSecondFactor).WithSummary("Does without the second factor again.").NeedsAnyone().RequireRateLimiting(Limits.SignIn);
        var welcome = api.MapGroup("/welcome").WithTags("People");
        welcome.MapPost("/look", Look).WithSummary("Whom a one-time link is for.").NeedsNobody().RequireRateLimiting(Limits.SignIn);
        welcome.MapPost("", Follow).WithSummary("Follows a one-time link: sets a password and signs in.").NeedsNobody().RequireRateLimiting(Limits.SignIn);
    }

    private static async Task<Ok<SessionRecord>> Show(HttpContext context, ServiceSettings settings, DaxlinDb db, IAntiforgery forms, CancellationToken cancel) =>
        TypedResults.Ok(await Of(context, settings, db, forms, cancel));

    private static async Task<SessionRecord> Of(HttpContext context, ServiceSettings settings, DaxlinDb db, IAntiforgery forms, CancellationToken cancel)
    {
        context.Response.Headers.CacheControl = "no-store";
        var actor = Actor.Of(context.User);
        var person = actor.PersonId is { } id ? await db.Users.AsNoTracking().SingleAsync(one => one.Id == id, cancel) : null;
        var isCookie = context.User.Identity is { IsAuthenticated: true, AuthenticationType: SignInSchemes.Cookie };
        return new SessionRecord(
            context.User.Identity?.IsAuthenticated ?? false, !settings.IsWithoutSignIn, actor.Name, [.. person?.Roles.Select(Roles.Word) ?? []], [.. actor.Rights.Select(Roles.Word)],
            PersonClaims.GroupsOf(context.User), actor.Key, person?.PasswordHash is not null, person?.TwoFactorEnabled ?? false, isCookie ? forms.GetAndStoreTokens(context).RequestToken ?? "" : "", actor.For, settings.Provider?.Name ?? "");
    }

    private static async Task<Results<Ok<SessionRecord>, ProblemHttpResult>> SignIn(
        SignInToDo said, HttpContext context, SigningIn signingIn, ServiceSettings settings, DaxlinDb db, IAntiforgery forms, CancellationToken cancel)
    {
        if (settings.IsWithoutSignIn)
            return NoSignIn();
        var (person, refused) = await signingIn.Do(said.Name ?? "", said.Password ?? "", said.Code, context, cancel);
        return person is null ? refused!.ToProblem() : TypedResults.Ok(await Of(context, settings, db, forms, cancel));
    }

    private static async Task<NoContent> SignOut(HttpContext context, SigningIn signingIn, CancellationToken cancel)
    {
        await signingIn.End(context, cancel);
        return TypedResults.NoContent();
    }

    private static async Task<Ok<List<SignInRecord>>> SignIns(HttpContext context, SigningIn signingIn, CancellationToken cancel)
    {
        var shown = context.User.FindFirstValue(PersonClaims.SignInClaim);
        return TypedResults.Ok((await signingIn.Own(context.User, cancel)).ConvertAll(one => new SignInRecord(one.Name, one.SignIn.BegunAt, one.SignIn.Until, one.SignIn.From, one.SignIn.Id == shown)));
    }

    private static async Task<Results<NoContent, ProblemHttpResult>> EndSignIn(string name, HttpContext context, SigningIn signingIn, CancellationToken cancel) =>
        await signingIn.End(name, context.User, cancel) ? TypedResults.NoContent() : Problem.NotThere("that sign-in");

    private static async Task<Results<Ok<WelcomeRecord>, ProblemHttpResult>> Look(WelcomeToLookAt said, OneTimeLinks links, CancellationToken cancel) =>
        await links.Whose(said.Link ?? "", cancel) is { } person ? TypedResults.Ok(new WelcomeRecord(person.Name, OneTimeLinks.ChoosesName(person))) : OneTimeLinks.Spent.ToProblem();

    private static async Task<Results<Ok<SessionRecord>, ProblemHttpResult>> Follow(
        WelcomeToFollow said, HttpContext context, OneTimeLinks links, ServiceSettings settings, DaxlinDb db, IAntiforgery forms, CancellationToken cancel)
    {
        if (settings.IsWithoutSignIn)
            return NoSignIn();
        var (person, refused) = await links.Follow(said, context, cancel);
        return person is null ? refused!.ToProblem() : TypedResults.Ok(await Of(context, settings, db, forms, cancel));
    }

    private static Task<Results<NoContent, ProblemHttpResult>> ChangePassword(
        PasswordToChange said, HttpContext context, OwnAccess own, CancellationToken cancel) => Answer(own.ChangePassword(said, context.User, cancel));

    private static async Task<Results<Ok<SecondFactorRecord>, ProblemHttpResult>> BeginSecondFactor(HttpContext context, OwnAccess own, CancellationToken cancel)
    {
        var (begun, refused) = await own.BeginSecondFactor(context.User, cancel);
        return begun is null ? refused!.ToProblem() : TypedResults.Ok(begun);
    }

    private static Task<Results<NoContent, ProblemHttpResult>> ConfirmSecondFactor(SecondFactorToConfirm said, HttpContext context, OwnAccess own, CancellationToken cancel) =>
        Answer(own.ConfirmSecondFactor(said.Code ?? "", context.User, cancel));

    private static Task<Results<NoContent, ProblemHttpResult>> DropSecondFactor(SecondFactorToDrop said, HttpContext context, OwnAccess own, CancellationToken cancel) =>
        Answer(own.DropSecondFactor(said.Password ?? "", context.User, cancel));

    private static async Task<Results<NoContent, ProblemHttpResult>> Answer(Task<Refused?> act) => await act is { } refused ? refused.ToProblem() : TypedResults.NoContent();

    private static ProblemHttpResult NoSignIn() => Refused.Conflict("no-sign-in", "This service was started without sign-in: only this machine reaches it, and nobody has to sign in.").ToProblem();
}
