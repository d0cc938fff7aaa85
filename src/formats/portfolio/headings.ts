import type { PortfolioField } from './fields';

/**
 * Headings as lists of names carry them, letters and digits only, lower case, in English and in the languages most used by
 * registrars: German, French, Spanish, Italian, Dutch, Portuguese, Polish, Swedish, Turkish, Japanese. The program's own come first.
 */
export const HEADINGS: Readonly<Record<PortfolioField, string>> = {
  name: `name domain domainname domains fqdn url site hostname
    domäne domainnamen domaine nomdedomaine nomdomaine nombre dominio nombrededominio dominios nomedominio nomedeldominio
    domein domeinnaam domeinen domínio nomededomínio nomedodomínio domena nazwadomeny domeny domän domännamn domäner
    alanadı alanadi alanadları ドメイン ドメイン名`,
  account: `account registrar provider accountname sponsoringregistrar heldat where
    konto anbieter compte bureaudenregistrement cuenta registrador proveedor conto fornitore rekening leverancier aanbieder
    conta fornecedor rejestrator registrerare återförsäljare hesap kayıtfirması アカウント レジストラ`,
  registered: `registered registrationdate created creationdate createdate createdon createdat dateregistered regdate
    registeredon registeredat since start
    registriert registriertam registrierungsdatum erstellt erstelltam angelegt datedecréation datedenregistrement crééle
    fechaderegistro fechadecreación creado registrado datadiregistrazione datadicreazione registrato registratiedatum
    geregistreerd aangemaakt datadecriação datadoregisto dataderegistro registadoem datarejestracji zarejestrowano utworzono
    registrerad registreringsdatum skapad kayıttarihi oluşturulmatarihi 登録日 登録年月日`,
  expires: `expires termends expirationdate expirydate expiry expiration expdate expireson expiresat renewaldate renewson
    duedate due dateexpires validuntil paiduntil paidthrough end enddate expiredate nextrenewal
    ablaufdatum läuftab läuftabam ablauf gültigbis bezahltbis verlängerungsdatum fällig
    datedexpiration expirele dateexpiration échéance datedéchéance renouvellementle datederenouvellement
    fechadevencimiento vencimiento vence fechadeexpiración caduca caducidad fechaderenovación
    scadenza datadiscadenza scadeil datascadenza datadirinnovo
    vervaldatum verlooptop verloopt einddatum geldigtot verlengdatum
    datadeexpiração datadevencimento expiraem validade datadevalidade datarenovação datadarenovação
    datawygaśnięcia wygasa datawaznosci dataważności ważnado dataodnowienia
    utgångsdatum utgår förfallodatum giltigtill förnyelsedatum
    bitiştarihi sonkullanmatarihi süresonu yenilemetarihi sonerme 有効期限 満了日 更新日 期限`,
  autoRenew: `autorenew autorenewal auto renewalmode autorenewstatus renewautomatically automaticrenewal renewmode autorenewed
    autorenewenabled renewal
    automatischeverlängerung autoverlängerung verlängerung autoverlängern renouvellementautomatique renouvellement autorenouvellement
    renovaciónautomática renovación autorrenovación rinnovoautomatico rinnovo automatischeverlenging verlenging autoverlenging
    renovaçãoautomática renovação automatyczneodnowienie autoodnawianie odnowienie automatiskförnyelse autoförnyelse förnyelse
    otomatikyenileme yenileme 自動更新 更新`,
  lock: `lock locked transferlock registrarlock lockstatus domainlock transferlocked islocked
    sperre gesperrt transfersperre verrou verrouillé verrouillage bloqueo bloqueado blocco bloccato vergrendeld vergrendeling
    transferslot bloqueio blokada zablokowana lås låst överföringslås kilit kilitli transferkilidi ロック 移管ロック`,
  privacy: `privacy whoisprivacy idprotection privacyprotection whoisprotection privateregistration isprivate
    datenschutz whoisschutz confidentialité protectionwhois privacidad privacidadwhois riservatezza privacywhois
    privacybescherming privacidade prywatność ochronaprywatności integritetsskydd integritet gizlilik whoisgizliliği
    プライバシー 代理公開 whois代理公開`,
  nameServers: `nameservers nameserver ns dns dnsservers hosts
    serveursdenoms serveurdns servidoresdenombres servidoresdns serverdns naamservers servidoresdenomes serwerynazw serwerydns
    namnservrar adsunucuları dnssunucuları ネームサーバー ネームサーバ`,
  tags: `tags tag labels category categories group folder keywords
    schlagwörter gruppe ordner kategorie étiquettes groupe catégorie dossier etiquetas grupo categoría carpeta etichette gruppo
    categoria cartella labels groep map categorie etiquetas pasta tagi grupa kategoria etiketter grupp kategori etiketler
    kategori grup タグ グループ カテゴリ`,
  purpose: `purpose use usage status plan intent
    zweck verwendung usage utilisation uso propósito scopo utilizzo doel gebruik finalidade cel użycie syfte användning amaç
    kullanım 用途 目的`,
  neverLost:
    'nevertobelost neverlost never critical protected niemalsverlieren kritisch critique crítico critico kritiek',
  pricePaid: `pricepaid paid purchaseprice boughtfor cost acquisitioncost acquisitionprice buyprice
    kaufpreis bezahlt anschaffungskosten kosten prixdachat prixpayé payé coût preciodecompra pagado coste costo prezzodacquisto
    pagato aankoopprijs betaald kostprijs preçodecompra pago custo cenazakupu zapłacono koszt köpesumma betalt inköpspris kostnad
    alışfiyatı ödenen maliyet 購入価格 取得費用`,
  boughtOn: `datebought boughton bought purchasedate purchased acquired acquisitiondate dateacquired purchasedon
    kaufdatum gekauftam datedachat achetéle fechadecompra compradoel datadacquisto acquistatoil aankoopdatum gekochtop
    datadecompra compradoem datazakupu kupiono köpdatum köpt alıştarihi satınalmatarihi 購入日`,
  renewalPrice: `renewalprice renewalcost renewprice renewcost renewalfee annualcost yearlycost priceperyear costperyear nextprice price
    verlängerungspreis preisprojahr jahrespreis preis jahresgebühr prixderenouvellement prixannuel prix coûtannuel
    preciorenovación preciodelarenovación precioanual precio prezzodirinnovo prezzoannuale prezzo canone
    verlengingsprijs jaarprijs prijs prijsperjaar preçoderenovação preçoanual preço cenaodnowienia cenaroczna cena
    förnyelsepris årspris pris yenilemeücreti yenilemefiyatı yıllıkücret fiyat ücret 更新料金 更新費用 年額 料金`,
  currency: `currency cur ccy currencycode
    währung devise monnaie moneda divisa valuta munteenheid moeda waluta valuta parabirimi döviz 通貨`,
  askingPrice: `asking askingprice listprice saleprice bin buynow buynowprice askprice listedat
    verkaufspreis wunschpreis angebotspreis prixdemandé prixdevente preciodeventa preciosolicitado prezzodivendita prezzorichiesto
    vraagprijs verkoopprijs preçodevenda preçopedido cenasprzedaży cenawywoławcza försäljningspris begärtpris utgångspris
    satışfiyatı istenenfiyat 販売価格 希望価格`,
  notes: `notes note comment comments remark remarks memo description
    notizen bemerkung bemerkungen kommentar remarques commentaire notas comentarios comentario osservazioni commenti nota
    opmerkingen notities opmerking observações comentários uwagi notatki komentarz anteckningar kommentarer notlar açıklama
    メモ 備考`,
};

/** A heading without case, blanks and signs, so that it can be looked up. */
export function plainHeading(heading: string): string {
  return heading
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, '');
}

/** The field that a heading names, or `null`. What two fields share belongs to the first. */
export function fieldOfHeading(heading: string): PortfolioField | null {
  return BY_HEADING.get(plainHeading(heading)) ?? null;
}

const BY_HEADING = new Map<string, PortfolioField>();
for (const [field, words] of Object.entries(HEADINGS) as [PortfolioField, string][])
  for (const word of words.split(/\s+/)) {
    const plain = plainHeading(word);
    if (plain !== '' && !BY_HEADING.has(plain)) BY_HEADING.set(plain, field);
  }
