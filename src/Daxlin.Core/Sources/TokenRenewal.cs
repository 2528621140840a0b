namespace Daxlin.Core.Sources;

/// <summary>Where access tokens that last for an hour or so are had anew (OAuth 2, RFC 6749, 6).</summary>
/// <param name="Url">The token endpoint.</param>
/// <param name="Client">The identifier that the mail's provider knows Daxlin by.</param>
/// <param name="ClientSecret">Names the secret that goes with it; empty for a public client.</param>
/// <param name="Refresh">Names the secret that holds the refresh token. One that the provider gives in its place is kept there.</param>
/// <param name="Scope">What the token is for, where the provider wants to be told; else empty.</param>
public sealed record TokenRenewal(Uri Url, string Client, string ClientSecret, string Refresh, string Scope)
{
    public IEnumerable<string> Secrets => ClientSecret.Length > 0 ? [Refresh, ClientSecret] : [Refresh];
}
