namespace Daxlin.Core.Posting.Receivers;

/// <summary>A request to a web address, signed so that the receiver can tell that it comes from here (Standard Webhooks 1.0).</summary>
/// <param name="Secret">Names the secret that it is signed with.</param>
public sealed record WebhookWay(Uri Url, string Secret) : ReceivingWay
{
    public override string Word => "webhook";

    public override string Place => Url.GetLeftPart(UriPartial.Path);

    public override string Says => $"One request with all its files is sent to {Place}, signed with the secret “{Secret}”.";

    public override IEnumerable<string> Secrets => [Secret];
}
