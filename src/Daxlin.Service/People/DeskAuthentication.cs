using System.Text.Encodings.Web;
using Daxlin.Core.People;
using Microsoft.AspNetCore.Authentication;
using Microsoft.Extensions.Options;

namespace Daxlin.Service.People;

/// <summary>
/// Who sits at a desk that has no sign-in: a person says its name in the header <c>Daxlin-Person</c>, percent-encoded, and who says none
/// is the user that the service runs as. Only programs of this machine reach such a service, and only their word stands for the name.
/// </summary>
internal sealed class DeskAuthentication(IOptionsMonitor<AuthenticationSchemeOptions> options, ILoggerFactory logger, UrlEncoder encoder)
    : AuthenticationHandler<AuthenticationSchemeOptions>(options, logger, encoder)
{
    private const string Header = "Daxlin-Person";

    protected override Task<AuthenticateResult> HandleAuthenticateAsync()
    {
        var said = PersonName.Tidied(Uri.UnescapeDataString(Request.Headers[Header].ToString()));
        var name = said.Length is > 0 and <= PersonName.Longest ? said : Environment.UserName;
        return Task.FromResult(AuthenticateResult.Success(new AuthenticationTicket(PersonClaims.AtDesk(name, Scheme.Name), Scheme.Name)));
    }
}
