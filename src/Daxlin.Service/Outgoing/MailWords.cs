using Daxlin.Service.Storage;

namespace Daxlin.Service.Outgoing;

/// <summary>How it stands with what goes out by itself, as the interface names it.</summary>
internal static class MailWords
{
    public static string Of(MailState state) => state switch { MailState.Waiting or MailState.Sending => "waiting", MailState.Sent => "sent", MailState.GivenUp => "given-up", _ => "none" };

    public static string Of(NoticeState state) => state switch { NoticeState.Waiting => "waiting", NoticeState.Sent => "sent", _ => "given-up" };
}
