using Daxlin.Core.Posting.Receivers;
using MimeKit;

namespace Daxlin.Service.Outgoing;

/// <summary>A message with the server that it goes by, or why there is none any more.</summary>
internal sealed record MailToSend(MimeMessage? Message, MailWay? Line, string WhyNot)
{
    public static MailToSend By(MailWay line, MimeMessage message) => new(message, line, "");

    public static MailToSend Not(string why) => new(null, null, why);
}
