-- What registrars tell is called as the trade calls it, in what was told before too.
update registrar_messages set kind = 'redemption-ended' where kind = 'purged';
update registrar_messages set kind = 'transfer-requested' where kind = 'transfer-asked';
