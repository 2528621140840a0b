using Daxlin.Core.History;
using Daxlin.Core.People;
using Daxlin.Service.History;
using Daxlin.Service.Storage;
using Daxlin.Service.Web;
using Microsoft.AspNetCore.Authorization;
using Microsoft.AspNetCore.Authorization.Policy;
using Microsoft.EntityFrameworkCore;

namespace Daxlin.Service.People;

/// <summary>Says to those who are refused what they lack and who has it. Refusals of those who are known stand in the history.</summary>
internal sealed class RightRefusals : IAuthorizationMiddlewareResultHandler
{
    private readonly AuthorizationMiddlewareResultHandler usual = new();

    public async Task HandleAsync(RequestDelegate next, HttpContext context, AuthorizationPolicy policy, PolicyAuthorizationResult authorizeResult)
    {
        if (authorizeResult.Challenged)
        {
            context.Response.Headers.WWWAuthenticate = "Bearer";
            await Problem.Of(StatusCodes.Status401Unauthorized, "sign-in-needed", await UnknownSentence(context)).ExecuteAsync(context);
        }
        else if (authorizeResult.Forbidden)
        {
            var right = context.GetEndpoint()?.Metadata.OfType<NeededRight>().LastOrDefault()?.Right ?? Right.See;
            await Problem.Of(StatusCodes.Status403Forbidden, "right-missing", await Refuse(context, right)).ExecuteAsync(context);
        }
        else
        {
            await usual.HandleAsync(next, context, policy, authorizeResult);
        }
    }

    private static async Task<string> UnknownSentence(HttpContext context)
    {
        var shown = await Microsoft.AspNetCore.Authentication.AuthenticationHttpContextExtensions.AuthenticateAsync(context);
        return shown.Failure is { } failure ? $"{failure.Message} Nobody is signed in by it." : "Nobody is signed in. Sign in, or show an access key.";
    }

    private static async Task<string> Refuse(HttpContext context, Right right)
    {
        var (services, cancel) = (context.RequestServices, context.RequestAborted);
        await using var db = await services.GetRequiredService<IDbContextFactory<DaxlinDb>>().CreateDbContextAsync(cancel);
        var actor = Actor.Of(context.User);
        var isKeyAlone = actor.Key.Length > 0 && await db.Users.AsNoTracking().SingleOrDefaultAsync(person => person.Id == actor.PersonId, cancel) is { } owner && owner.Rights.Contains(right);
        var sentence = isKeyAlone
            ? $"The access key “{actor.Key}” may not {Roles.Does(right)}: it was made without the right “{Roles.Word(right)}”, which {actor.Name} has."
            : $"{actor.Name} may not {Roles.Does(right)}; that is for {Roles.WhoCan(right)}. {await WhoCan.Sentence(db, person => person.Rights.Contains(right), "Nobody has that right at the moment; an administrator can give it.", cancel)}";
        if (actor.PersonId is { } id)
        {
            await using var change = await services.GetRequiredService<WriteTurn>().Take(db, cancel);
            var at = services.GetRequiredService<TimeProvider>().GetUtcNow().UtcDateTime;
            await HistoryLog.Record(db, new Deed(HistoryStreams.Person(id), at, actor.Name, HistoryActs.Refused, $"was refused: {context.Request.Method} {context.Request.Path}") { Reason = sentence }, cancel);
            await db.SaveChangesAsync(cancel);
            await change.Commit(cancel);
        }
        return sentence;
    }
}
